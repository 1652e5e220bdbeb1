import type { JoinPlan, JoinQuery } from '@tersum/document';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { planJoin } from '../../api/makings.js';
import { Dial } from '../../look/Dial.js';
import { Caption, Figure, Warning } from '../../look/parts.js';

interface JoinReachProps {
  readonly job: string;
  /** What is to be joined; null while too little is chosen. */
  readonly query: JoinQuery | null;
  /** 0 = nothing is invented .. 1 = everything that any frame shows. */
  readonly reach: number;
  onReach(reach: number): void;
}

/** How far out a joined picture goes, with the share that would be invented. */
export function JoinReach({ job, query, reach, onReach }: JoinReachProps) {
  const [plan, setPlan] = useState<JoinPlan | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const key = query && JSON.stringify(query);
  useEffect(() => {
    setPlan(null);
    setProblem(null);
    if (!key) return;
    const gone = new AbortController();
    planJoin(job, JSON.parse(key) as JoinQuery, gone.signal).then(setPlan, (error: unknown) => {
      if (!gone.signal.aborted) setProblem(messageOf(error));
    });
    return () => gone.abort();
  }, [job, key]);
  const last = plan ? plan.steps.length - 1 : 0;
  const step = plan?.steps[Math.round(reach * last)];
  return (
    <Box>
      <Dial
        label="How far out"
        least={0}
        most={100}
        step={10}
        unit="%"
        value={Math.round(100 * reach)}
        onChange={(v) => onReach(v / 100)}
        onDone={(v) => onReach(v / 100)}
      />
      <Caption role="status">
        {step ? (
          <>
            About{' '}
            <Figure>
              {step.width} × {step.height} px
            </Figure>
            , invented <Figure>{(100 * step.invented).toFixed(1)} %</Figure>
          </>
        ) : query && !problem ? (
          'Joining small copies to see what would be invented…'
        ) : (
          'Choose the frames to see what would be invented.'
        )}
      </Caption>
      {problem && <Warning>{problem}</Warning>}
    </Box>
  );
}

const Box = styled.div`
  display: grid;
  gap: 4px;
  margin-bottom: 12px;
  max-width: 340px;
`;
