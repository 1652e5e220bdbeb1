import type { Rect } from '@tersum/core';
import { frameOf } from '@tersum/core';
import type { OpenPicture } from '../pool/tasks.js';
import type { WorkPool } from '../pool/pool.js';
import type { Base } from './bases.js';
import { Lru } from './lru.js';

const MEMORY = 1_500_000_000;

/** Pictures on another canvas, made when they are first needed and kept while there is room. */
export class Canvases {
  private readonly made = new Lru<Promise<OpenPicture>>(MEMORY);

  constructor(private readonly pool: WorkPool) {}

  /** What lies on a base where the picture is to lie at `on`, in the original's coordinates. */
  async on({ name, picture }: Base, on: Rect): Promise<OpenPicture> {
    const { x, y, width, height } = frameOf(picture.raster);
    if (on.x === x && on.y === y && on.width === width && on.height === height) return picture;
    const key = [name, on.x, on.y, on.width, on.height].join(' ');
    const known = this.made.get(key);
    if (known) return known;
    const making = this.pool
      .run({ kind: 'canvas', original: picture.raster, on })
      .then((laid) => ({ ...picture, ...laid }));
    this.made.set(key, making, 0);
    making.then(
      (laid) => {
        const bytes = [laid.raster, ...laid.pyramid].reduce((n, r) => n + r.data.byteLength, 0);
        this.made.set(key, making, bytes);
      },
      () => this.made.delete(key),
    );
    return making;
  }
}
