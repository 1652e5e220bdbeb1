import type { Patch } from '@tersum/document';
import type { WorkPool } from '../pool/pool.js';
import { Lru } from './lru.js';

type ReplayTask = Parameters<WorkPool['run']>[0] & { readonly kind: 'replay' };

/** Replays each repair once, however many renderings want it, and keeps the patches used last. */
export class PatchDesk {
  private readonly kept: Lru<Patch>;
  private readonly running = new Map<string, Promise<Patch>>();

  /** @param memory bytes of patches kept */
  constructor(
    memory: number,
    private readonly pool: WorkPool,
  ) {
    this.kept = new Lru(memory);
  }

  /** @param key names the patch: equal keys mean equal bytes */
  async patch(key: string, task: ReplayTask): Promise<Patch> {
    const known = this.kept.get(key);
    if (known) return known;
    let running = this.running.get(key);
    if (!running) {
      running = this.pool.run(task).finally(() => this.running.delete(key));
      this.running.set(key, running);
    }
    const patch = await running;
    this.kept.set(key, patch, patch.samples.data.byteLength + patch.mask.byteLength);
    return patch;
  }
}
