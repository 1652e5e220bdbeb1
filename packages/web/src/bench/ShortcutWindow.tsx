import styled from 'styled-components';
import { Window } from '../look/Window.js';
import { look } from '../look/theme.js';

const KEYS: readonly (readonly [keys: string, what: string])[] = [
  ['1 - 7', 'Method: clone, graft, patch, fill, piece, give back, push'],
  ['hold D, click', 'Say where to copy from'],
  ['[  ]', 'Turn the donor by 1°; with Shift by 15°'],
  ['-  =', 'Scale the donor by 1 %; with Shift by 10 %'],
  ['X  Y', 'Mirror the donor across, down'],
  ['Alt arrows', 'Move the donor by 1 px; with Shift by 10 px'],
  ['←  →, Enter', 'Walk through donors that were found, take one'],
  [',  .', 'Narrower, wider'],
  [';  ’', 'Harder, softer'],
  ['E', 'Follow the line of a chain to its ends'],
  ['Enter', 'End a chain or outline and mend it'],
  ['Esc', 'Drop what is being drawn; close what is open'],
  ['Shift click', 'Open several repairs of the docket'],
  ['Delete', 'Delete the selected repair'],
  ['N  P', 'Next, previous on the docket'],
  ['K', 'Keep the selected finding as it is'],
  ['hold V', 'Show the picture as received'],
  ['hold A', 'Show all sites'],
  ['B', 'Split view on and off'],
  ['F  R  T', 'Fit, 1:1, 2:1'],
  ['wheel', 'Zoom at the pointer'],
  ['right or middle drag, arrows', 'Move the picture'],
  ['arrows, Enter', 'While donors or variants are offered: try another, take it'],
  ['Tab, arrows, Delete', 'On a guide’s point: bend the guide, take it away'],
  ['Q  E', 'Turn the view'],
  ['Enter, M, arrows, Esc', 'In the sweep: pass, mark, only look, stop'],
  ['Ctrl Z,  Ctrl Shift Z', 'Undo, redo'],
];

/** The sheet of keys. */
export function ShortcutWindow({ onClose }: { onClose(): void }) {
  return (
    <Window title="Keys" isOpen onClose={onClose} width={420}>
      <Table>
        <tbody>
          {KEYS.map(([keys, what]) => (
            <tr key={keys}>
              <th scope="row">{keys}</th>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Window>
  );
}

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 4px 0;
    border-bottom: 1px solid ${look.hairline};
  }
  th {
    font: 500 12px ${look.figures};
    white-space: pre;
  }
`;
