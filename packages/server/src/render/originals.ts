import type { OpenPicture } from '../pool/tasks.js';
import type { WorkPool } from '../pool/pool.js';
import type { ContentStore } from '../store/files.js';
import { Lru } from './lru.js';

const MEMORY = 2_500_000_000;

/** Originals, decoded into shared memory when they are first needed. */
export class Originals {
  private readonly open = new Lru<Promise<OpenPicture>>(MEMORY);

  constructor(
    private readonly files: ContentStore,
    private readonly pool: WorkPool,
  ) {}

  get(hash: string): Promise<OpenPicture> {
    return this.openAs(hash, this.files.pathOf(hash));
  }

  /** A picture file that is known by another name. */
  openAs(name: string, path: string): Promise<OpenPicture> {
    const known = this.open.get(name);
    if (known) return known;
    const opening = this.pool.run({ kind: 'open', path });
    this.open.set(name, opening, 0);
    opening.then(
      (picture) => this.keep(name, picture),
      () => this.open.delete(name),
    );
    return opening;
  }

  /** Takes in a picture that was decoded already. */
  keep(hash: string, picture: OpenPicture): void {
    const bytes = [picture.raster, ...picture.pyramid].reduce(
      (sum, r) => sum + r.data.byteLength,
      0,
    );
    this.open.set(hash, Promise.resolve(picture), bytes);
  }

  pathOf(hash: string): string {
    return this.files.pathOf(hash);
  }
}
