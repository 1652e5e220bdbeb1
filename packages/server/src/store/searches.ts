import { promisify } from 'node:util';
import { deflateRaw, inflateRaw } from 'node:zlib';
import type { DonorMap } from '@tersum/core';
import { packDonorMap, unpackDonorMap } from '@tersum/core';
import type { FoundMap, Keeping } from '@tersum/document';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { searches } from '../db/schema.js';
import type { ContentStore } from './files.js';
import { contentName } from './files.js';

const deflate = promisify(deflateRaw);
const inflate = promisify(inflateRaw);

/** What fills' searches ended in: a row a search, its donor map compressed in a file. */
export class SearchStore {
  private readonly recent = new Map<string, FoundMap>();

  constructor(
    private readonly db: Db,
    private readonly maps: ContentStore,
  ) {}

  async find(search: string): Promise<FoundMap | undefined> {
    const known = this.recent.get(search);
    if (known) return known;
    const row = this.db.select().from(searches).where(eq(searches.id, search)).get();
    if (!row) return undefined;
    const map = unpackDonorMap(new Uint8Array(await inflate(await this.maps.read(row.map))));
    return this.remember(search, { map, hash: row.map, below: row.below });
  }

  /** A search's donor map as it is stored. */
  async packed(
    search: string,
  ): Promise<{ hash: string; below: string; bytes: Uint8Array } | undefined> {
    const row = this.db.select().from(searches).where(eq(searches.id, search)).get();
    if (!row) return undefined;
    return { hash: row.map, below: row.below, bytes: await this.maps.read(row.map) };
  }

  async keep(search: string, map: DonorMap, below: string): Promise<Keeping> {
    const bytes = await deflate(packDonorMap(map), { level: 4 });
    const hash = contentName(bytes);
    const kept = this.write(search, bytes, hash, below).catch((error: unknown) => {
      this.recent.delete(search);
      throw error;
    });
    return { found: this.remember(search, { map, hash, below }), kept };
  }

  private async write(
    search: string,
    bytes: Uint8Array,
    hash: string,
    below: string,
  ): Promise<void> {
    await this.maps.write(bytes);
    this.db
      .insert(searches)
      .values({ id: search, map: hash, below, finishedAt: new Date().toISOString() })
      .onConflictDoNothing()
      .run();
  }

  private remember(search: string, found: FoundMap): FoundMap {
    this.recent.set(search, found);
    if (this.recent.size > 500) this.recent.delete(this.recent.keys().next().value!);
    return found;
  }
}
