import type { RepairTell } from '@tersum/document';
import { ListChecks } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { letTellStand, proveRepairs, useProof } from '../../api/proof.js';
import { Figure, Push, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { mendTell, mendTells } from '../model/mend-tells.js';
import { docketOrder, letterOf } from '../model/repairs.js';
import { toldOf } from '../model/told.js';
import { Group, GroupHead, Word } from './group.js';
import { LimitsWindow } from './LimitsWindow.js';
import { TellRow } from './TellRow.js';

/** Measures every repair for what gives it away, leads to each place, and mends it as advised. */
export function Proof() {
  const { bench } = useBench();
  const { records, pictureId } = useBenchState((s) => ({
    records: s.records,
    pictureId: s.pictureId,
  }));
  const [problem, setProblem] = useState<string | null>(null);
  const [limits, setLimits] = useState(false);
  const [mending, setMending] = useState(false);
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
  const { open, standing, faint } = toldOf(answer, order);
  const late = answer !== null && answer.version !== records.picture.version;
  const mend = async (act: () => Promise<boolean>): Promise<void> => {
    setMending(true);
    try {
      if (await act()) await prove();
    } catch (error) {
      setProblem(messageOf(error));
    } finally {
      setMending(false);
    }
  };
  const stand = async ({ kind, repair, box }: RepairTell, stands: boolean): Promise<void> => {
    try {
      await letTellStand(pictureId, { kind, repair, box, stands });
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  const row = (tell: RepairTell) => (
    <TellRow
      key={`${tell.repair} ${tell.kind} ${tell.box.x} ${tell.box.y}`}
      tell={tell}
      letter={tell.repair && letterOf(order.findIndex((r) => r.id === tell.repair))}
      late={late || mending}
      onMend={() => void mend(() => mendTell(bench, tell))}
      onStand={(t, stands) => void stand(t, stands)}
    />
  );
  return (
    <Group aria-label="Proof">
      <GroupHead>
        <h3>Proof</h3>
        {answer && (
          <span>
            <Figure>{open.length}</Figure> {open.length === 1 ? 'tell' : 'tells'}
          </span>
        )}
        {busy ? (
          <Push onPress={() => running.current?.abort()}>Cancel</Push>
        ) : (
          <Push onPress={() => void prove()} isDisabled={mending}>
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
      {mending && !busy && <Word role="status">Looking for better donors …</Word>}
      {problem && <Word role="alert">{problem}</Word>}
      {answer && !busy && (
        <>
          {late && !mending && <Word>Something changed since; prove again.</Word>}
          {open.length === 0 && (
            <Word>
              {standing.length
                ? 'Nothing else gives these repairs away.'
                : 'Nothing gives these repairs away.'}
            </Word>
          )}
          {faint > 0 && (
            <Word>
              {faint} more {faint === 1 ? 'repeats' : 'repeat'} nothing but grain near by: measured,
              hardly ever seen.
            </Word>
          )}
          <Bar>
            {open.length > 1 && !late && (
              <Quiet
                isDisabled={mending}
                onPress={() => void mend(async () => (await mendTells(bench, open)) > 0)}
              >
                Mend all as advised
              </Quiet>
            )}
            <Quiet onPress={() => setLimits(true)}>Limits</Quiet>
          </Bar>
          <Rows>{open.map(row)}</Rows>
          {standing.length > 0 && (
            <Stood>
              <summary>
                <Figure>{standing.length}</Figure> let stand
              </summary>
              <Rows>{standing.map(row)}</Rows>
            </Stood>
          )}
        </>
      )}
      {limits && <LimitsWindow pictureId={pictureId} onClose={() => setLimits(false)} />}
    </Group>
  );
}

const Bar = styled.div`
  display: flex;
  gap: 4px;
  padding: 0 12px 4px 12px;
  button {
    font-size: 12px;
    min-height: 26px;
    padding: 0 8px;
  }
`;

const Rows = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0 0 6px;
  max-height: max(240px, calc(100vh - 380px));
  overflow: auto;
`;

const Stood = styled.details`
  summary {
    padding: 4px 20px 8px;
    color: ${look.inkSoft};
    font-size: 12px;
    cursor: pointer;
  }
`;
