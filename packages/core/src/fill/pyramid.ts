import type { Crew } from '../task/crew.js';
import type { Atlas } from './atlas.js';
import type { Level } from './level.js';
import { emptyLevel, HALF, halve, layDown, LEVEL_COST, lessTexture } from './level.js';
import type { Manner } from './manner.js';
import type { FillRoom } from './room.js';
import { openFillRoom, SLACK } from './room.js';
import type { Work } from './work.js';
import { openWork, workCost } from './work.js';

/** All levels of a search, finest first, in one memory. */
export interface Pyramid {
  readonly room: FillRoom;
  readonly levels: readonly Level[];
  readonly work: Work;
}

/** Sources of a level are thinned until they are fewer than twice as many. */
const MANY_SOURCES = 65536;

/** Every so manieth of a level's sources is taken. */
export function sourceStep(count: number): number {
  return Math.max(1, Math.floor(count / MANY_SOURCES));
}

function mostSources(pixels: number): number {
  return Math.min(pixels, 2 * MANY_SOURCES);
}

const FIELD_BYTES = 29;
const FIELD_ARRAYS = 9;

/**
 * Halves the window until the hole is shallow enough for the manner of the search.
 * @param depth greatest depth of the hole, px
 * @throws RangeError when there is not so much memory
 */
export function pyramidOf(
  { raster: window, hole, banned }: Pick<Atlas, 'raster' | 'hole' | 'banned'>,
  depth: number,
  manner: Manner,
  crew: Crew,
): Pyramid {
  const sizes = [{ width: window.width, height: window.height }];
  let left = depth;
  for (;;) {
    const { width, height } = sizes[sizes.length - 1]!;
    if (left <= manner.coarsestDepth || Math.min(width, height) < 16 * HALF) break;
    sizes.push({ width: width >> 1, height: height >> 1 });
    left /= 2;
  }
  const all = sizes.reduce((sum, { width, height }) => sum + width * height, 0);
  const cost = workCost(window.width, window.height);
  const room = openFillRoom(
    all * (LEVEL_COST.bytes + FIELD_BYTES) +
      2 * sizes.length * SLACK +
      sizes.reduce((sum, { width, height }) => sum + 4 * mostSources(width * height), 0) +
      cost.bytes,
    sizes.length * (LEVEL_COST.arrays + FIELD_ARRAYS) + cost.arrays,
    crew,
  );
  const work = openWork(room.arena, window.width, window.height, manner.distrust);
  const levels = sizes.map(({ width, height }) => emptyLevel(room, width, height));
  const finest = levels[0]!;
  finest.hole.set(hole);
  finest.banned.set(banned);
  layDown(room, finest, window, manner.texture, work);
  for (let k = 1; k < levels.length; k++) halve(room, levels[k - 1]!, levels[k]!);
  lessTexture(room, finest);
  return { room, levels, work };
}
