import type { RepairTell } from '@tersum/document';
import { ListChecks } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { proveRepairs, useProof } from '../../api/proof.js';
import { Figure, Push, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import type { Bench } from '../model/bench.js';
import { useBench, useBenchState } from '../model/context.js';
import { docketOrder, letterOf } from '../model/repairs.js';
import { mendFor, mendTell } from '../model/tell-mends.js';
import { TELL_WORDS, tellValue } from '../model/tell-words.js';
import { Group, GroupHead, Word } from './group.js';

/** Measures every repair for what gives it away, leads to each place, and mends it as advised. */
export function Proof() {
  const { bench } = useBench();
  const { records, pictureId, shown } = useBenchState((s) => ({
    records: s.records,
    pictureId: s.pictureId,
    shown: s.tell,
  }));
  const [problem, setProblem] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  const [busy, setBusy] = useState(false);
  const { data } = useProof(pictureId, busy);
  const answer = data?.proof ?? null;
  if (!records?.repairs.length) return null;
  const prove = async (): Promise<void> => {
    const abort = new AbortController();
    running.current = abort;
    setBusy(true);
    setProblem(null);
    bench.set({ tell: null });
    try {
      await proveRepairs(pictureId, abort.signal);
    } catch (error) {
      if (!abort.signal.aborted) setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  const order = docketOrder(records);
  const letter = (repair: string): string => letterOf(order.findIndex((r) => r.id === repair));
  const standing = worstFirst(answer?.tells ?? []).filter((t) =>
    order.some((r) => r.id === t.repair && r.enabled),
  );
  const tells = standing.filter((t) => !t.faint);
  const faint = standing.length - tells.length;
  const late = answer !== null && answer.version !== records.picture.version;
  const mend = async (tell: RepairTell): Promise<void> => {
    const repair = order.find((r) => r.id === tell.repair);
    const way = repair && mendFor(pictureId, repair, tell);
    if (!way) return;
    try {
      if (await mendTell(bench, way)) await prove();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  return (
    <Group aria-label="Proof">
      <GroupHead>
        <h3>Proof</h3>
        {answer && (
          <span>
            <Figure>{tells.length}</Figure> {tells.length === 1 ? 'tell' : 'tells'}
          </span>
        )}
        {busy ? (
          <Push onPress={() => running.current?.abort()}>Cancel</Push>
        ) : (
          <Push onPress={() => void prove()}>
            <ListChecks size={14} aria-hidden /> {answer ? 'Prove again' : 'Prove repairs'}
          </Push>
        )}
      </GroupHead>
      {busy && (
        <Word role="status">
          Measuring seams, tone, detail, lines and repeats
          {data?.share ? `, ${Math.round(100 * data.share)} %` : ''} …
        </Word>
      )}
      {problem && <Word role="alert">{problem}</Word>}
      {answer && !busy && (
        <>
          {late && <Word>Something changed since; prove again.</Word>}
          {tells.length === 0 && <Word>Nothing gives these repairs away.</Word>}
          {faint > 0 && (
            <Word>
              {faint} more {faint === 1 ? 'repeats' : 'repeat'} nothing but grain near by: measured,
              hardly ever seen.
            </Word>
          )}
          <Rows>
            {tells.map((tell, k) => {
              const repair = order.find((r) => r.id === tell.repair)!;
              const way = mendFor(pictureId, repair, tell);
              return (
                <li key={k} data-on={shown === tell}>
                  <Go type="button" onClick={() => show(bench, tell)}>
                    <b>{letter(tell.repair)}</b> {TELL_WORDS[tell.kind].name}
                    <Figure>{tellValue(tell)}</Figure>
                    <small>
                      limit {tell.limit} · {TELL_WORDS[tell.kind].help}
                    </small>
                  </Go>
                  {way && !late && (
                    <Quiet
                      aria-label={`${way.label}: ${TELL_WORDS[tell.kind].name} of ${letter(tell.repair)}`}
                      onPress={() => void mend(tell)}
                    >
                      {way.label}
                    </Quiet>
                  )}
                </li>
              );
            })}
          </Rows>
        </>
      )}
    </Group>
  );
}

/** By how far a tell is beyond its limit. */
function worstFirst(tells: readonly RepairTell[]): RepairTell[] {
  const beyond = ({ value, limit }: RepairTell): number => Math.abs(Math.log(value / limit));
  return [...tells].sort((a, b) => beyond(b) - beyond(a));
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

const Rows = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0 0 6px;
  max-height: 300px;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: start;
    border-left: 3px solid ${look.todo};
  }
  li > button:last-child:not(:first-child) {
    font-size: 12px;
    color: ${look.done};
    min-height: 24px;
    margin: 2px 6px 0 0;
  }
  li[data-on='true'] {
    background: ${look.paperHigh};
  }
`;

const Go = styled.button`
  display: grid;
  grid-template-columns: auto 1fr auto;
  column-gap: 8px;
  padding: 4px 6px 4px 14px;
  border: 0;
  background: none;
  text-align: left;
  small {
    grid-column: 2 / -1;
    color: ${look.inkSoft};
    font-size: 11px;
  }
`;
