import type { Making } from '@tersum/document';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Figure, MainPush, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Actions } from '../../look/Window.js';
import type { useMaking } from './useMaking.js';

interface MakingFootProps {
  readonly making: ReturnType<typeof useMaking>;
  /** What to make; null while something is still missing. */
  readonly order: Making | null;
  readonly verb: string;
  onClose(): void;
}

/** Begins a making, shows how far it is, and leads to what was made. */
export function MakingFoot({ making, order, verb, onClose }: MakingFootProps) {
  const { status, working, problem } = making;
  return (
    <>
      {problem && <Warning>{problem}</Warning>}
      {status?.state === 'stopped' && <p role="status">Stopped. Nothing was added.</p>}
      {status?.state === 'ready' && (
        <Made role="status">
          {status.pictures.length === 1 ? 'Added to the job: ' : 'Added to the job:'}
          {status.pictures.map((picture) => (
            <Link key={picture.id} to={`/bench/${picture.id}`}>
              {picture.name}
            </Link>
          ))}
        </Made>
      )}
      {working && (
        <Progress>
          <progress value={status?.share ?? 0} aria-label="Progress" />
          <Figure>{Math.round((status?.share ?? 0) * 100)} %</Figure>
        </Progress>
      )}
      <Actions>
        <Push onPress={onClose}>Close</Push>
        {working ? (
          <Push onPress={making.stop}>Stop</Push>
        ) : (
          <MainPush isDisabled={!order} onPress={() => order && void making.begin(order)}>
            {verb}
          </MainPush>
        )}
      </Actions>
    </>
  );
}

const Made = styled.p`
  display: grid;
  gap: 2px;
  margin-top: 12px;
  padding: 8px 10px;
  border: 1px solid ${look.done};
  border-radius: ${look.corner};
  a {
    color: ${look.done};
    font-weight: 600;
  }
`;

const Progress = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
  progress {
    flex: 1;
    accent-color: ${look.done};
  }
`;
