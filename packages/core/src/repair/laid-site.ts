import type { DonorMap } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf, sampleBytes, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Crew } from '../task/crew.js';
import { MOST_RANGES, rangesOf } from '../task/crew.js';
import type { LaidCopies } from './laid-copies.js';
import { openCopies } from './laid-copies.js';

/** A fill's copies, laid out of its donor map. */
export interface LaidSite {
  readonly copies: LaidCopies;
  /** 1 in the site, a value a pixel of the picture. */
  readonly mask: Uint8Array;
  /** The picture with the copies' colour laid over it, as far as the site is covered. @param strength 0..1 */
  laidOver(strength: number): Raster;
}

/** Pixels of the smallest range of rows. */
const LEAST_PIXELS = 32768;

/**
 * Lays out what a donor map says.
 * @param origin where the picture lies in the map's coordinates @param coverage 0..1, a value a pixel of the picture
 * @throws RangeError when a source lies outside the picture
 */
export function laySite(
  picture: Raster,
  { rect, dx, dy }: DonorMap,
  origin: Rect,
  coverage: Float32Array,
  crew: Crew,
): LaidSite {
  const copies = openCopies(picture, crew);
  const { arena, record, samples, colour, run } = copies;
  const { width, height, channels, data } = picture;
  const pixels = width * height;
  const more = arena.more(9 * pixels + 4 * dx.length + 4 * (8 + MOST_RANGES), 7);
  const [donors, strays] = [more.words(8), more.words(MOST_RANGES)];
  const [across, down] = [more.shorts(dx.length), more.shorts(dy.length)];
  const [given, covered, inside] = [more.floats(pixels), more.floats(pixels), more.bytes(pixels)];
  across.set(dx);
  down.set(dy);
  given.set(coverage);
  donors.set([rect.x - origin.x, rect.y - origin.y, rect.width]);
  donors.set(
    [across, down, given, covered, inside].map((array) => array.byteOffset),
    3,
  );
  const rows = rangesOf(height, Math.ceil(LEAST_PIXELS / width));
  run('blank', [record], rows);
  const lines = rangesOf(rect.height, Math.ceil(LEAST_PIXELS / rect.width));
  run('layDonors', [record, donors, strays], lines);
  if (strays.some((count) => count > 0))
    throw new RangeError('donor map reaches outside its window');
  return {
    copies,
    mask: inside.slice(),
    laidOver: (strength) => {
      run('layOver', [record, colour, covered, strength, whiteOf(data)], rows);
      const out = createRaster(width, height, channels, depthOf(data));
      sampleBytes(out.data).set(samples);
      return out;
    },
  };
}
