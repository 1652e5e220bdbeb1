import type { Raster, Rect } from '@tersum/core';
import type { Repair, WalkHost } from '@tersum/document';
import { picturesRead } from '@tersum/document';
import type { FindingStore } from '../store/findings.js';
import type { RecordStore } from '../store/records.js';
import type { Base, Bases } from './bases.js';
import type { Canvases } from './canvases.js';
import { unmended } from './damage.js';
import type { PatchDesk } from './patch-desk.js';
import type { SearchDesk } from './search-desk.js';

/** Gives walks over a picture's records what they ask for: patches and searches, computed by the pool. */
export class WalkHosts {
  constructor(
    private readonly records: RecordStore,
    private readonly findings: FindingStore,
    private readonly bases: Bases,
    private readonly canvases: Canvases,
    private readonly patches: PatchDesk,
    private readonly searching: SearchDesk,
  ) {}

  /** For a picture and what its repairs lie on. */
  for(id: string, base: Base): WalkHost {
    const lyingOn = async (on: Rect) => (await this.canvases.on(base, on)).raster;
    return {
      patch: async (key, repair, map, below, on) => {
        const original = await lyingOn(on);
        const elsewhere = await this.elsewhere(id, repair);
        return this.patches.patch(key, { kind: 'replay', repair, map, original, below, elsewhere });
      },
      found: (search) => this.searching.found(search),
      search: async (repair, below, others, later, on, task) => {
        const original = await lyingOn(on);
        const damage = unmended(this.records, this.findings, id, repair);
        const place = { kind: 'search', repair, original, below, others, later, damage } as const;
        return this.searching.search(id, place, task);
      },
      keepFound: (search, map, below) => this.searching.keep(search, map, below),
    };
  }

  /** The other pictures of the job that a repair copies from; those that are gone are left out. */
  private async elsewhere(id: string, repair: Repair): Promise<Record<string, Raster>> {
    const found: Record<string, Raster> = {};
    const others = picturesRead(repair.method);
    if (!others.length) return found;
    const { jobId } = this.records.picture(id);
    for (const other of others) {
      const row = this.records.find(other);
      if (row?.jobId === jobId) found[other] = (await this.bases.get(other)).picture.raster;
    }
    return found;
  }
}
