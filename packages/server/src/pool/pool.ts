import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import type { RoughFill, Task } from '@tersum/core';
import { Cancelled, NothingToCopy } from '@tersum/core';
import { compileInThreads } from '@tersum/threads';
import { Piscina } from 'piscina';
import { UserProblem } from '@tersum/codec';
import type { Answer, Answers, Said, TaskOf, Wire, WorkerSetup, WorkerTask } from './tasks.js';

/** Work that takes long: they are watched and can be ended. */
type Watched =
  'search' | 'variant' | 'make' | 'proof' | 'export' | 'widen' | 'prepare' | 'join plan';

/** What a person waits for at the pointer; never queued behind a search or an export. */
const QUICK: ReadonlySet<WorkerTask['kind']> = new Set([
  'replay',
  'donors',
  'twins',
  'advice',
  'grounds',
  'guides',
  'portions',
  'region',
  'line',
  'ends',
  'added',
  'part',
]);

interface Threads {
  readonly quick: Piscina;
  readonly long: Piscina;
}

/** Runs tasks on worker threads. Jobs are plain data, so another queue could take them over. */
export class WorkPool {
  private threads: Threads | null = null;

  /**
   * @param worker URL of the worker's module
   * @param warm whether threads run the engine a few times before their first task
   */
  constructor(
    private readonly worker: URL,
    private readonly warm: boolean,
  ) {}

  /** Starts the threads, so that who comes now does not wait for them; the first task would, too. */
  begin(): void {
    this.begun();
  }

  async run<K extends Exclude<WorkerTask['kind'], Watched>>(task: TaskOf<K>): Promise<Answers[K]> {
    const { quick, long } = this.begun();
    const pool = QUICK.has((task as WorkerTask).kind) ? quick : long;
    return settle<K>(await pool.run(task));
  }

  /** Runs a search that reports progress and can be cancelled. @throws Cancelled, NothingToCopy */
  async search<K extends Watched>(
    task: Omit<TaskOf<K>, 'wire'>,
    watch: Task & { signal: AbortSignal; rough?: (filling: RoughFill) => void },
  ): Promise<Answers[K]> {
    const { port1, port2 } = new MessageChannel();
    const wire: Wire = { cancelled: new Int32Array(new SharedArrayBuffer(4)), port: port2 };
    const cancel = (): void => void Atomics.store(wire.cancelled, 0, 1);
    watch.signal.addEventListener('abort', cancel);
    if (watch.signal.aborted) cancel();
    port1.on('message', (said: Said) => {
      if (typeof said === 'number') watch.progress?.(said);
      else watch.rough?.(said);
    });
    try {
      return settle<K>(await this.begun().long.run({ ...task, wire }, { transferList: [port2] }));
    } finally {
      watch.signal.removeEventListener('abort', cancel);
      port1.close();
    }
  }

  async close(): Promise<void> {
    await Promise.all([this.threads?.quick.destroy(), this.threads?.long.destroy()]);
  }

  private begun(): Threads {
    return (this.threads ??= threadsOf(this.worker, this.warm));
  }
}

function threadsOf(worker: URL, warmed: boolean): Threads {
  compileInThreads();
  const source = worker.pathname.endsWith('.ts');
  const options = {
    filename: worker.href,
    maxThreads: Math.max(2, availableParallelism()),
    idleTimeout: 600_000,
    stricterFIFO: true,
    ...(source ? { execArgv: ['--import', 'tsx'] } : {}),
  };
  const begun = (warm: WorkerSetup['warm']) => ({
    workerData: { warm: warmed ? warm : null } satisfies WorkerSetup,
  });
  return {
    quick: new Piscina({ ...options, minThreads: 2, ...begun('strokes') }),
    long: new Piscina({ ...options, minThreads: 1, ...begun('searches') }),
  };
}

function settle<K extends keyof Answers>(answer: Answer<K>): Answers[K] {
  if ('ok' in answer) return answer.ok;
  if ('problem' in answer)
    throw new UserProblem(answer.status as UserProblem['status'], answer.problem);
  if ('unmendable' in answer) throw new NothingToCopy(answer.unmendable);
  throw new Cancelled();
}
