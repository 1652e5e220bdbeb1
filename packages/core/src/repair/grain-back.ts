import { seededRandom } from '../random/random.js';
import { medianOf } from '../raster/median.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';

/** px round a site in which its surroundings' grain is measured; {@link grainBack} has to be shown as much. */
export const GRAIN_RING = 14;
/** Taps of the B3 spline, which takes the finest detail off (Starck, Murtagh, "Astronomical Image and Data Analysis", 2002). */
const TAPS = [1 / 16, 4 / 16, 6 / 16, 4 / 16, 1 / 16] as const;
const HALF = 2;
/** Median size of what the spline takes off white noise of deviation 1: 0.6745 of a normal law, times the filter's own 0.8908. */
const SHARE = 0.6745 * 0.8908;
/** Fewest pixels that say anything of grain. */
const LEAST = 60;
/** Pixels that are asked, about. */
const ASKED = 4000;

/**
 * Gives a repair the grain its surroundings have and it lacks: noise of one deviation for the whole site, alike in all
 * channels, added to what was computed. Exact: free of transcendental functions, the same bytes everywhere.
 * @param picture the repaired pixels with their surroundings; left as it is
 * @param coverage 0..1, a value a pixel @param share 0..1 of what is missing @param seed of the noise
 */
export function grainBack(
  picture: Raster,
  coverage: Float32Array,
  share: number,
  seed: number,
): Raster {
  const { channels, data } = picture;
  const [inside, outside] = [fineness(picture, coverage, true), fineness(picture, coverage, false)];
  const lacking = inside === null || outside === null ? 0 : outside * outside - inside * inside;
  const out = { ...picture, data: data.slice() };
  if (lacking <= 0) return out;
  const deviation = (share * Math.sqrt(lacking)) / SHARE;
  const random = seededRandom(seed);
  const white = whiteOf(data);
  for (let p = 0; p < coverage.length; p++) {
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

/** Median size of the finest detail of pixels wholly inside, or wholly outside; null of too few. */
function fineness(picture: Raster, coverage: Float32Array, within: boolean): number | null {
  const { width, height } = picture;
  const places: number[] = [];
  for (let y = HALF; y < height - HALF; y++)
    for (let x = HALF; x < width - HALF; x++) {
      const p = y * width + x;
      if (isWhole(coverage, p, width, within)) places.push(p);
    }
  if (places.length < LEAST) return null;
  const each = Math.max(1, Math.floor(places.length / ASKED));
  const asked = places.filter((_, k) => k % each === 0);
  return medianOf(asked.map((p) => Math.abs(fineAt(picture, p))));
}

/** Whether all that the spline reads lies on one side. */
function isWhole(coverage: Float32Array, p: number, width: number, within: boolean): boolean {
  for (let v = -HALF; v <= HALF; v += HALF)
    for (let u = -HALF; u <= HALF; u += HALF) {
      const cover = coverage[p + v * width + u]!;
      if (within ? cover < 0.99 : cover > 0) return false;
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
