import type { RepairTell } from '@tersum/document';
import styled from 'styled-components';
import { Figure, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import type { Bench } from '../model/bench.js';
import { useBench, useBenchState } from '../model/context.js';
import { mendOf } from '../model/mend-tells.js';
import { TELL_WORDS, tellValue } from '../model/tell-words.js';

interface TellRowProps {
  readonly tell: RepairTell;
  /** Letter of its repair; null for the whole picture. */
  readonly letter: string | null;
  /** Whether the picture changed since it was measured. */
  readonly late: boolean;
  onMend(tell: RepairTell): void;
  onStand(tell: RepairTell, stands: boolean): void;
}

/** One tell: what it is and by how much, what helps, and letting it stand. */
export function TellRow({ tell, letter, late, onMend, onStand }: TellRowProps) {
  const { bench } = useBench();
  const shown = useBenchState((s) => s.tell);
  const { name, help } = TELL_WORDS[tell.kind];
  const of = letter ? `${name} of ${letter}` : name;
  const way = tell.stands || late ? null : mendOf(bench, tell);
  return (
    <Row data-on={shown === tell} data-stands={tell.stands}>
      <Go type="button" title={help} onClick={() => show(bench, tell)}>
        <b>{letter ?? '·'}</b> {name}
        <Figure>{tellValue(tell)}</Figure>
        <small>
          limit {tell.limit}
          {way || tell.stands ? '' : ` · ${help}`}
        </small>
      </Go>
      <Ways>
        {way && (
          <Quiet aria-label={`${way.label}: ${of}`} onPress={() => onMend(tell)}>
            {way.label}
          </Quiet>
        )}
        <Quiet
          aria-label={`${tell.stands ? 'Tell again' : 'Let stand'}: ${of}`}
          onPress={() => onStand(tell, !tell.stands)}
        >
          {tell.stands ? 'Tell again' : 'Let stand'}
        </Quiet>
      </Ways>
    </Row>
  );
}

/** Brings the place to the middle of the table and opens its repair. */
function show(bench: Bench, tell: RepairTell): void {
  const { viewport } = bench.store.getState();
  const { x, y, width, height } = tell.box;
  bench.set({
    tell,
    selected: tell.repair,
    also: [],
    ...(viewport
      ? {
          viewport: {
            ...viewport,
            x: x + width / 2,
            y: y + height / 2,
            zoom: Math.max(1, viewport.zoom),
          },
        }
      : {}),
  });
}

const Row = styled.li`
  border-left: 3px solid ${look.todo};
  &[data-stands='true'] {
    border-left-color: ${look.hairline};
  }
  &[data-on='true'] {
    background: ${look.paperHigh};
  }
`;

const Go = styled.button`
  display: grid;
  grid-template-columns: 14px 1fr auto;
  column-gap: 8px;
  width: 100%;
  padding: 4px 12px 0 14px;
  border: 0;
  background: none;
  text-align: left;
  small {
    grid-column: 2 / -1;
    color: ${look.inkSoft};
    font-size: 11px;
    line-height: 14px;
  }
`;

const Ways = styled.div`
  display: flex;
  gap: 4px;
  padding: 0 8px 4px 28px;
  button {
    font-size: 12px;
    min-height: 24px;
    padding: 0 8px;
  }
  button:last-child {
    color: ${look.inkSoft};
  }
  button:first-child:not(:last-child) {
    color: ${look.done};
  }
`;
