import { seededRandom } from '../random/random.js';
import { medianOf } from '../raster/median.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';

/** px round a site in which its surroundings' grain is measured; {@link grainBack} has to be shown as much. */
export const GRAIN_RING = 20;
/** Share of what is missing that a fill is given back: the rest of it is often structure that only the surroundings have. */
export const GRAIN_SHARE = 0.7;
/** Shares of a site's pixels that lie well inside it between which it comes to need grain: narrow ones hardly show any. */
const [NARROW, BROAD] = [0.53, 0.68];
/** Taps of the B3 spline, which takes the finest detail off (Starck, Murtagh, "Astronomical Image and Data Analysis", 2002). */
const TAPS = [1 / 16, 4 / 16, 6 / 16, 4 / 16, 1 / 16] as const;
const HALF = 2;
/** Median size of what the spline takes off white noise of deviation 1: 0.6745 of a normal law, times the filter's own 0.8908. */
const SHARE = 0.6745 * 0.8908;
/** Coverage from which on a pixel is the site's. */
const WHOLLY = 0.99;
/** Fewest pixels that say anything of grain. */
const LEAST = 60;
/** Pixels that are asked, about, and those outside that are looked at for it. */
const ASKED = 4000;
const LOOKED_AT = 10 * ASKED;

/**
 * Gives a repair the grain its surroundings have and it lacks: noise of one deviation for the whole site, alike in all
 * channels, added to what was computed. Exact: free of transcendental functions, the same bytes everywhere.
 * @param picture the repaired pixels with their surroundings; left as it is
 * @param coverage 0..1, a value a pixel @param share 0..1 of what is missing; up to {@link GRAIN_SHARE} less where the site is narrow
 * @param seed of the noise
 */
export function grainBack(
  picture: Raster,
  coverage: Float32Array,
  share: number,
  seed: number,
): Raster {
  const { width, channels, data } = picture;
  const out = { ...picture, data: data.slice() };
  const site = boxOf(coverage, width);
  if (!site) return out;
  const near = intersect(grow(site, GRAIN_RING), { x: 0, y: 0, width, height: picture.height });
  const inside = placesOf(picture, coverage, near, true);
  if (!inside) return out;
  const needed = Math.min(1, Math.max(0, (inside.share - NARROW) / (BROAD - NARROW)));
  // Who asks for more than is usual has seen that it lacks.
  const wanted = Math.max(needed, (share - GRAIN_SHARE) / (1 - GRAIN_SHARE));
  if (wanted <= 0) return out;
  const outside = placesOf(picture, coverage, near, false);
  const lacking = outside ? fineness(picture, outside) ** 2 - fineness(picture, inside) ** 2 : 0;
  if (lacking <= 0) return out;
  const deviation = (wanted * share * Math.sqrt(lacking)) / SHARE;
  const random = seededRandom(seed);
  const white = whiteOf(data);
  for (let y = site.y; y < site.y + site.height; y++)
    for (let x = site.x, p = y * width + x; x < site.x + site.width; x++, p++) {
      const cover = coverage[p]!;
      if (cover <= 0) continue;
      // Four even ones add up to nearly a normal law, of variance a third.
      const four = random.unit() + random.unit() + random.unit() + random.unit() - 2;
      const by = cover * deviation * Math.sqrt(3) * four;
      for (let c = 0, i = p * channels; c < colourChannels(channels); c++, i++) {
        const v = data[i]! + by;
        out.data[i] = v <= 0 ? 0 : v >= white ? white : white > 1 ? Math.floor(v + 0.5) : v;
      }
    }
  return out;
}

/** The box of what is covered at all. */
function boxOf(coverage: Float32Array, width: number): Rect | null {
  let [left, right, top, bottom] = [width, -1, -1, -1];
  for (let p = 0, y = 0; p < coverage.length; y++)
    for (let x = 0; x < width; x++, p++) {
      if (coverage[p]! <= 0) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (top < 0) top = y;
      bottom = y;
    }
  return right < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

/** Pixels of a site, or of what lies round it, whose finest detail can be told. */
interface Places {
  /** All of the spline lies on their side. */
  readonly places: Int32Array;
  /** Share they have of the pixels wholly on that side. */
  readonly share: number;
}

/** Of pixels wholly inside, or wholly outside; null of too few. */
function placesOf(
  { width, height }: Raster,
  coverage: Float32Array,
  near: Rect,
  within: boolean,
): Places | null {
  const places = new Int32Array(near.width * near.height);
  let [count, all] = [0, 0];
  const right = Math.min(near.x + near.width, width - HALF);
  const bottom = Math.min(near.y + near.height, height - HALF);
  // Round a large site a part of the pixels says as much.
  const step = within ? 1 : Math.max(1, Math.floor((near.width * near.height) / LOOKED_AT));
  for (let y = Math.max(near.y, HALF); y < bottom; y++)
    for (
      let x = Math.max(near.x, HALF) + (y % step), p = y * width + x;
      x < right;
      x += step, p += step
    ) {
      if (within ? coverage[p]! < WHOLLY : coverage[p]! > 0) continue;
      all++;
      if (isWhole(coverage, p, width, within)) places[count++] = p;
    }
  return count < LEAST ? null : { places: places.subarray(0, count), share: count / all };
}

/** Median size of the finest detail, codes. */
function fineness(picture: Raster, { places }: Places): number {
  const each = Math.max(1, Math.floor(places.length / ASKED));
  const sizes: number[] = [];
  for (let k = 0; k < places.length; k += each) sizes.push(Math.abs(fineAt(picture, places[k]!)));
  return medianOf(sizes);
}

/** Whether all that the spline reads lies on one side. */
function isWhole(coverage: Float32Array, p: number, width: number, within: boolean): boolean {
  for (let v = -HALF; v <= HALF; v += HALF)
    for (let u = -HALF; u <= HALF; u += HALF) {
      const cover = coverage[p + v * width + u]!;
      if (within ? cover < WHOLLY : cover > 0) return false;
    }
  return true;
}

/** What the spline takes off a pixel's mean over the channels, codes. */
function fineAt({ width, channels, data }: Raster, p: number): number {
  const colours = colourChannels(channels);
  const grey = (q: number): number => {
    let sum = 0;
    for (let c = 0; c < colours; c++) sum += data[q * channels + c]!;
    return sum / colours;
  };
  let soft = 0;
  for (let v = -HALF; v <= HALF; v++)
    for (let u = -HALF; u <= HALF; u++)
      soft += TAPS[v + HALF]! * TAPS[u + HALF]! * grey(p + v * width + u);
  return grey(p) - soft;
}
