import type { TellKind } from '@tersum/core';
import type { ProofAnswer } from '@tersum/document';
import { ListChecks } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { proveRepairs } from '../../api/proof.js';
import { Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import type { Bench } from '../model/bench.js';
import { useBench, useBenchState } from '../model/context.js';
import { docketOrder, letterOf } from '../model/repairs.js';

type Tell = ProofAnswer['tells'][number];

/** What each tell is called, its unit, and what mostly helps. */
const WORDS: Record<TellKind, { name: string; unit: string; help: string }> = {
  seam: { name: 'Seam', unit: '×', help: 'Soften the edge, or graft instead of clone.' },
  tone: { name: 'Step of tone', unit: 'ΔE', help: 'Graft it, or take a donor of like tone.' },
  softness: { name: 'Soft', unit: '×', help: 'Take a sharper donor, or lower the strength.' },
  grain: { name: 'Grain', unit: '×', help: 'Take a donor with the grain of its surroundings.' },
  repeat: { name: 'Seen twice', unit: 'px', help: 'Take another donor, or another variant.' },
  'broken-line': { name: 'Broken line', unit: 'px', help: 'Shift the donor along the line.' },
  leftover: { name: 'Left over', unit: '', help: 'Mend it once more.' },
  pull: { name: 'Draws the eye', unit: '', help: 'Take it out, or tone it down.' },
};

/** Measures every repair for what gives it away, and leads to each place. */
export function Proof() {
  const { bench } = useBench();
  const { records, pictureId, shown } = useBenchState((s) => ({
    records: s.records,
    pictureId: s.pictureId,
    shown: s.tell,
  }));
  const [answer, setAnswer] = useState<ProofAnswer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  const [busy, setBusy] = useState(false);
  if (!records?.repairs.length) return null;
  const prove = async (): Promise<void> => {
    const abort = new AbortController();
    running.current = abort;
    setBusy(true);
    setProblem(null);
    bench.set({ tell: null });
    try {
      setAnswer(await proveRepairs(pictureId, abort.signal));
    } catch (error) {
      if (!abort.signal.aborted) setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  const order = docketOrder(records);
  const letter = (repair: string): string => letterOf(order.findIndex((r) => r.id === repair));
  const tells = (answer?.tells ?? []).filter((t) => order.some((r) => r.id === t.repair));
  const late = answer !== null && answer.version !== records.picture.version;
  return (
    <Group aria-label="Proof">
      <Head>
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
      </Head>
      {busy && <Word role="status">Measuring seams, tone, detail, lines and repeats …</Word>}
      {problem && <Word role="alert">{problem}</Word>}
      {answer && !busy && (
        <>
          {late && <Word>Something changed since; prove again.</Word>}
          {tells.length === 0 && <Word>Nothing gives these repairs away.</Word>}
          <Rows>
            {tells.map((tell, k) => (
              <li key={k} data-on={shown === tell}>
                <button type="button" onClick={() => show(bench, tell)}>
                  <b>{letter(tell.repair)}</b> {WORDS[tell.kind].name}
                  <Figure>
                    {tell.value.toFixed(tell.kind === 'repeat' ? 0 : 2)} {WORDS[tell.kind].unit}
                  </Figure>
                  <small>
                    limit {tell.limit} · {WORDS[tell.kind].help}
                  </small>
                </button>
              </li>
            ))}
          </Rows>
        </>
      )}
    </Group>
  );
}

/** Brings the place to the middle of the table and opens its repair. */
function show(bench: Bench, tell: Tell): void {
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

const Group = styled.section`
  border-bottom: 1px solid ${look.hairline};
`;

const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding: 8px 12px 8px 20px;
  h3 {
    font-size: 13px;
    font-weight: 600;
  }
  span {
    flex: 1;
    color: ${look.inkSoft};
  }
  h3 + button {
    margin-left: auto;
  }
`;

const Word = styled.p`
  padding: 0 16px 8px 20px;
  color: ${look.inkSoft};
  font-size: 12px;
`;

const Rows = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0 0 6px;
  max-height: 240px;
  overflow: auto;
  button {
    width: 100%;
    display: grid;
    grid-template-columns: auto 1fr auto;
    column-gap: 8px;
    padding: 4px 12px 4px 17px;
    border: 0;
    border-left: 3px solid ${look.todo};
    background: none;
    text-align: left;
  }
  small {
    grid-column: 2 / -1;
    color: ${look.inkSoft};
    font-size: 11px;
  }
  li[data-on='true'] {
    background: ${look.paperHigh};
  }
`;
