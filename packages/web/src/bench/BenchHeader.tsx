import { format, parseISO } from 'date-fns';
import { Download, History, Keyboard, Redo2, Undo2 } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { Link, NavLink } from 'react-router';
import styled from 'styled-components';
import { Figure, MainPush, Push, Quiet } from '../look/parts.js';
import { look } from '../look/theme.js';
import { ExportWindow } from './export/ExportWindow.js';
import { useBench, useBenchState } from './model/context.js';
import { LogWindow } from '../work/LogWindow.js';
import { ShortcutWindow } from './ShortcutWindow.js';

/** Where this is, whether it is kept, and the ways back and out. */
export function BenchHeader() {
  const { bench } = useBench();
  const [open, setOpen] = useState<'export' | 'keys' | 'log' | null>(null);
  // Pixels are waited for, words are not: they are drawn in the pauses.
  const { records, saving } = useDeferredValue(
    useBenchState((s) => ({ records: s.records, saving: s.saving > 0 })),
  );
  return (
    <Bar>
      <nav aria-label="Where you are">
        <Link to="/">Jobs</Link>
        {records && (
          <>
            <span aria-hidden>›</span>
            <span title={records.jobTitle}>{records.jobTitle}</span>
            <span aria-hidden>›</span>
            <strong title={records.picture.name}>{records.picture.name}</strong>
          </>
        )}
      </nav>
      {records && (
        <Rooms aria-label="Rooms of this picture">
          <NavLink to={`/intake/${records.picture.id}`}>Intake</NavLink>
          <NavLink to={`/bench/${records.picture.id}`}>Bench</NavLink>
          <NavLink to={`/proof/${records.picture.id}`}>Proof</NavLink>
          <NavLink to={`/finish/${records.picture.id}`}>Finish</NavLink>
        </Rooms>
      )}
      <Saved aria-live="polite">
        {saving ? (
          'saving…'
        ) : records?.savedAt ? (
          <>
            saved <Figure>{format(parseISO(records.savedAt), 'HH:mm')}</Figure>
          </>
        ) : null}
      </Saved>
      <Push
        isDisabled={!records?.undo}
        onPress={() => void bench.undo()}
        aria-label={records?.undo ? `Undo: ${records.undo}` : 'Undo'}
      >
        <Undo2 size={14} aria-hidden /> Undo
      </Push>
      <Push
        isDisabled={!records?.redo}
        onPress={() => void bench.redo()}
        aria-label={records?.redo ? `Redo: ${records.redo}` : 'Redo'}
      >
        <Redo2 size={14} aria-hidden /> Redo
      </Push>
      <Quiet isDisabled={!records} onPress={() => setOpen('log')} aria-label="Log">
        <History size={16} aria-hidden />
      </Quiet>
      <Quiet onPress={() => setOpen('keys')} aria-label="Keys">
        <Keyboard size={16} aria-hidden />
      </Quiet>
      <MainPush isDisabled={!records} onPress={() => setOpen('export')}>
        <Download size={14} aria-hidden /> Export
      </MainPush>
      {open === 'export' && <ExportWindow onClose={() => setOpen(null)} />}
      {open === 'log' && records && (
        <LogWindow pictureId={records.picture.id} onClose={() => setOpen(null)} />
      )}
      {open === 'keys' && <ShortcutWindow onClose={() => setOpen(null)} />}
    </Bar>
  );
}

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 12px 0 20px;
  border-bottom: 1px solid ${look.hairline};
  background: ${look.paper};
  nav {
    flex: 1;
    min-width: 0;
    display: flex;
    gap: 8px;
    > * {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    a {
      color: ${look.done};
      flex-shrink: 0;
    }
    strong {
      font-weight: 600;
    }
  }
`;

const Rooms = styled.div.attrs({ role: 'navigation' })`
  display: flex;
  align-self: stretch;
  gap: 4px;
  margin-right: 12px;
  a {
    display: grid;
    place-items: center;
    padding: 0 10px;
    color: ${look.inkSoft};
    text-decoration: none;
    border-bottom: 2px solid transparent;
  }
  a[aria-current='page'] {
    color: ${look.ink};
    font-weight: 600;
    border-bottom-color: ${look.done};
  }
`;

const Saved = styled.span`
  color: ${look.inkSoft};
  margin-right: 8px;
  white-space: nowrap;
`;
