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
  /** What is on its way to the disk: who asks for it waits until it is there. */
  private readonly writing = new Map<string, Promise<FoundMap>>();

  constructor(
    private readonly db: Db,
    private readonly maps: ContentStore,
  ) {}

  async find(search: string): Promise<FoundMap | undefined> {
    const known = this.recent.get(search) ?? this.writing.get(search);
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
    await this.writing.get(search);
    const row = this.db.select().from(searches).where(eq(searches.id, search)).get();
    if (!row) return undefined;
    return { hash: row.map, below: row.below, bytes: await this.maps.read(row.map) };
  }

  async keep(search: string, map: DonorMap, below: string): Promise<Keeping> {
    const bytes = await deflate(packDonorMap(map), { level: 4 });
    const found = { map, hash: contentName(bytes), below };
    const written = this.write(search, found, bytes).finally(() => this.writing.delete(search));
    this.writing.set(search, written);
    return { found, kept: written.then(() => undefined) };
  }

  private async write(search: string, found: FoundMap, bytes: Uint8Array): Promise<FoundMap> {
    const { hash, below } = found;
    await this.maps.write(bytes);
    this.db
      .insert(searches)
      .values({ id: search, map: hash, below, finishedAt: new Date().toISOString() })
      .onConflictDoNothing()
      .run();
    return this.remember(search, found);
  }

  private remember(search: string, found: FoundMap): FoundMap {
    this.recent.set(search, found);
    if (this.recent.size > 500) this.recent.delete(this.recent.keys().next().value!);
    return found;
  }
}
