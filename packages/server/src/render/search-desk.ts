import type { DonorMap, RoughFill, Task } from '@tersum/core';
import type { FillPlace, FoundMap, Keeping, Records } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';
import type { SearchStore } from '../store/searches.js';

type SearchTask = { readonly kind: 'search' } & FillPlace;

interface Running {
  readonly picture: string;
  readonly abort: AbortController;
  readonly result: Promise<DonorMap>;
  /** Latest share done, and who wants to hear of it. */
  readonly listeners: Set<(share: number) => void>;
}

/**
 * Runs each search once, however many renderings wait for it. A search outlives the rendering that began it
 * and ends early only when no record names it any more.
 */
export class SearchDesk {
  private readonly running = new Map<string, Running>();

  constructor(
    private readonly store: SearchStore,
    private readonly pool: WorkPool,
    /** Hears what the filling of a repair comes to on the way. */
    private readonly rough: (picture: string, repair: string, filling: RoughFill) => void,
  ) {}

  found(search: string): Promise<FoundMap | undefined> {
    return this.store.find(search);
  }

  keep(search: string, map: DonorMap, below: string): Promise<Keeping> {
    return this.store.keep(search, map, below);
  }

  /** @throws Cancelled, NothingToCopy */
  async search(picture: string, task: SearchTask, watch: Task): Promise<DonorMap> {
    const { method } = task.repair;
    if (method.kind !== 'fill') throw new Error('only fills are searched');
    const running = this.running.get(method.search) ?? this.begin(picture, method.search, task);
    const { progress } = watch;
    if (progress) running.listeners.add(progress);
    try {
      return await running.result;
    } finally {
      if (progress) running.listeners.delete(progress);
    }
  }

  /** Ends searches of a picture that its records do not name any more. */
  cancelUnneeded(picture: string, records: Records): void {
    const needed = new Set(
      records.repairs.map((r) => (r.method.kind === 'fill' ? r.method.search : null)),
    );
    for (const [search, running] of this.running)
      if (running.picture === picture && !needed.has(search)) running.abort.abort();
  }

  private begin(picture: string, search: string, task: SearchTask): Running {
    const abort = new AbortController();
    const listeners = new Set<(share: number) => void>();
    const result = this.pool
      .search<'search'>(task, {
        signal: abort.signal,
        progress: (share) => listeners.forEach((tell) => tell(share)),
        rough: (filling) => this.rough(picture, task.repair.id, filling),
      })
      .finally(() => this.running.delete(search));
    const running = { picture, abort, result, listeners };
    this.running.set(search, running);
    return running;
  }
}
