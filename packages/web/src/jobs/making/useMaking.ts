import type { Making, MakingStatus } from '@tersum/document';
import { useEffect, useState } from 'react';
import { messageOf } from '../../api/client.js';
import { beginMaking, getMaking, stopMaking } from '../../api/makings.js';

/** One making at a time: begun, followed, stopped. */
export function useMaking(job: string) {
  const [status, setStatus] = useState<MakingStatus | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const id = status?.id;
  const working = status?.state === 'working';

  useEffect(() => {
    if (!id || !working) return;
    let over = false;
    const timer = setInterval(() => {
      getMaking(job, id).then(
        (news) => {
          if (!over) setStatus(news);
        },
        (error: unknown) => setProblem(messageOf(error)),
      );
    }, 300);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [job, id, working]);

  return {
    status,
    working,
    problem: problem ?? (status?.state === 'failed' ? status.message : null),
    async begin(making: Making): Promise<void> {
      setProblem(null);
      setStatus(null);
      try {
        setStatus(await beginMaking(job, making));
      } catch (error) {
        setProblem(messageOf(error));
      }
    },
    stop(): void {
      if (id) stopMaking(job, id).catch((error: unknown) => setProblem(messageOf(error)));
    },
  };
}
