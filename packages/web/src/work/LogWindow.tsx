import type { WorkKind, WorkLog } from '@tersum/document';
import { FINDING_NAMES, WORK_ROOMS } from '@tersum/document';
import { format, isSameDay, parseISO } from 'date-fns';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { useWorkLog } from '../api/work.js';
import { Caption, Figure, Push, Warning } from '../look/parts.js';
import { look } from '../look/theme.js';
import { timeOf } from '../look/time.js';
import { Actions, Window } from '../look/Window.js';

interface LogProps {
  readonly pictureId: string;
  onClose(): void;
}

const ROOM_NAMES: Record<(typeof WORK_ROOMS)[number], string> = {
  intake: 'Intake',
  bench: 'Bench',
  finish: 'Finish',
  proof: 'Proof',
};
const DONE = { do: '', undo: 'Undone: ', redo: 'Done again: ' } as const;

/** What was done to a picture, when, and how long it took; pauses are left out. */
export function LogWindow({ pictureId, onClose }: LogProps) {
  const { data: log, error } = useWorkLog(pictureId);
  return (
    <Window title="Log" isOpen width={520} onClose={onClose}>
      {error !== undefined && <Warning>{messageOf(error)}</Warning>}
      {!log && error === undefined && <Caption role="status">Looking it up …</Caption>}
      {log && <Times log={log} />}
      {log && <Changes changes={log.changes} />}
      <Actions>
        <Push onPress={onClose}>Close</Push>
      </Actions>
    </Window>
  );
}

function Times({ log: { kinds, days } }: { readonly log: WorkLog }) {
  const all = WORK_ROOMS.reduce((sum, room) => sum + (kinds[room] ?? 0), 0);
  if (all < 1)
    return (
      <Part>
        <Caption>No working time yet. Pauses of over a minute are not counted.</Caption>
      </Part>
    );
  const rows = (Object.entries(kinds) as [WorkKind, number][]).filter(([, s]) => s >= 1);
  const [rooms, found] = [true, false].map((inRooms) =>
    rows.filter(([kind]) => isRoom(kind) === inRooms),
  );
  return (
    <Part aria-label="Working time">
      <p>
        <Figure>{timeOf(all)}</Figure> of work on <Figure>{days.length}</Figure>{' '}
        {days.length === 1 ? 'day' : 'days'}; pauses are not counted.
      </p>
      <dl>
        {[...rooms!, ...found!].map(([kind, seconds]) => (
          <div key={kind}>
            <dt data-within={!isRoom(kind)}>
              {isRoom(kind) ? ROOM_NAMES[kind] : FINDING_NAMES[kind][0]}
            </dt>
            <dd>
              <Figure>{timeOf(seconds)}</Figure>
            </dd>
          </div>
        ))}
      </dl>
    </Part>
  );
}

function isRoom(kind: WorkKind): kind is (typeof WORK_ROOMS)[number] {
  return WORK_ROOMS.some((room) => room === kind);
}

function Changes({ changes }: Pick<WorkLog, 'changes'>) {
  if (!changes.length) return <Caption>Nothing was done to this picture yet.</Caption>;
  return (
    <List aria-label="What was done">
      {changes.map(({ version, kind, label, at }, k) => {
        const when = parseISO(at);
        const before = changes[k - 1];
        return (
          <li key={version}>
            {(!before || !isSameDay(parseISO(before.at), when)) && (
              <h3>{format(when, 'EEEE d MMMM yyyy')}</h3>
            )}
            <Figure>{format(when, 'HH:mm')}</Figure> {DONE[kind]}
            {label}
          </li>
        );
      })}
    </List>
  );
}

const Part = styled.section`
  margin-bottom: 14px;
  dl {
    margin: 6px 0 0;
    columns: 2;
    column-gap: 32px;
  }
  dl > div {
    display: flex;
    justify-content: space-between;
    break-inside: avoid;
  }
  dt {
    color: ${look.inkSoft};
    &[data-within='true'] {
      padding-left: 12px;
    }
  }
  dd {
    margin: 0;
  }
`;

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 10px 0 0;
  border-top: 1px solid ${look.hairline};
  max-height: 340px;
  overflow: auto;
  line-height: 24px;
  h3 {
    font-size: 12px;
    font-weight: 600;
    margin-top: 6px;
  }
  ${Figure} {
    color: ${look.inkSoft};
    margin-right: 8px;
  }
`;
