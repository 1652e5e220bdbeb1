import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import type { Task } from '@tersum/core';
import { Cancelled } from '@tersum/core';
import { Unmendable } from '@tersum/document';
import { Piscina } from 'piscina';
import { UserProblem } from '../problem.js';
import type { Answer, Answers, Wire, WorkerTask } from './tasks.js';

type TaskOf<K extends WorkerTask['kind']> = Extract<WorkerTask, { kind: K }>;

/** Runs tasks on worker threads. Jobs are plain data, so another queue could take them over. */
export class WorkPool {
  private readonly piscina: Piscina;

  /** @param worker URL of the worker's module */
  constructor(worker: URL) {
    this.piscina = new Piscina({
      filename: worker.href,
      minThreads: 1,
      maxThreads: Math.max(2, availableParallelism()),
      idleTimeout: 60_000,
      ...(worker.pathname.endsWith('.ts') ? { execArgv: ['--import', 'tsx'] } : {}),
    });
  }

  async run<K extends Exclude<WorkerTask['kind'], 'search'>>(task: TaskOf<K>): Promise<Answers[K]> {
    return settle<K>(await this.piscina.run(task));
  }

  /** Runs a search that reports progress and can be cancelled. @throws Cancelled, Unmendable */
  async search(task: Omit<TaskOf<'search'>, 'wire'>, watch: Task & { signal: AbortSignal }): Promise<Answers['search']> {
    const { port1, port2 } = new MessageChannel();
    const wire: Wire = { cancelled: new Int32Array(new SharedArrayBuffer(4)), port: port2 };
    const cancel = (): void => void Atomics.store(wire.cancelled, 0, 1);
    watch.signal.addEventListener('abort', cancel);
    if (watch.signal.aborted) cancel();
    port1.on('message', (share: number) => watch.progress?.(share));
    try {
      return settle<'search'>(
        await this.piscina.run({ ...task, wire }, { transferList: [port2] }),
      );
    } finally {
      watch.signal.removeEventListener('abort', cancel);
      port1.close();
    }
  }

  close(): Promise<void> {
    return this.piscina.destroy();
  }
}

function settle<K extends keyof Answers>(answer: Answer<K>): Answers[K] {
  if ('ok' in answer) return answer.ok;
  if ('problem' in answer) throw new UserProblem(answer.status as UserProblem['status'], answer.problem);
  if ('unmendable' in answer) throw new Unmendable(answer.unmendable);
  throw new Cancelled();
}
