import { seededRandom } from '../../random/random.js';
import type { Raster } from '../../raster/raster.js';
import { colourChannels, whiteOf } from '../../raster/raster.js';
import type { Rect } from '../../raster/rect.js';

const TAPS = [1 / 16, 4 / 16, 6 / 16, 4 / 16, 1 / 16] as const;
const HALF = 2;
const WHOLLY = Math.fround(0.99);

/** Twin of places in kernels/repair/grain.ts. @returns the places, and how many pixels lie on their side themselves */
export function placesPlainly(
  coverage: Float32Array,
  width: number,
  within: Rect,
  step: number,
  inside: boolean,
): { places: number[]; all: number } {
  const isThere = (p: number): boolean => (inside ? coverage[p]! >= WHOLLY : coverage[p]! <= 0);
  const places: number[] = [];
  let all = 0;
  for (let y = within.y; y < within.y + within.height; y++)
    for (let x = within.x + (y % step); x < within.x + within.width; x += step) {
      const p = y * width + x;
      if (!isThere(p)) continue;
      all++;
      const rows = [-HALF, 0, HALF];
      if (rows.every((v) => rows.every((u) => isThere(p + v * width + u)))) places.push(p);
    }
  return { places, all };
}

/** Twin of fineness there: the size of what the spline takes off a pixel's mean over the channels, codes. */
export function finenessPlainly({ width, channels, data }: Raster, p: number): number {
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
  return Math.abs(grey(p) - soft);
}

/** Twin of grain there: adds noise of a deviation to the covered pixels of a picture, alike in all colours. */
export function addGrainPlainly(
  { width, channels, data }: Raster,
  coverage: Float32Array,
  site: Rect,
  deviation: number,
  seed: number,
): void {
  const random = seededRandom(seed);
  const white = whiteOf(data);
  for (let y = site.y; y < site.y + site.height; y++)
    for (let x = site.x, p = y * width + x; x < site.x + site.width; x++, p++) {
      const cover = coverage[p]!;
      if (cover <= 0) continue;
      const four = random.unit() + random.unit() + random.unit() + random.unit() - 2;
      const by = cover * deviation * Math.sqrt(3) * four;
      for (let c = 0, i = p * channels; c < colourChannels(channels); c++, i++) {
        const v = data[i]! + by;
        data[i] = v <= 0 ? 0 : v >= white ? white : white > 1 ? Math.floor(v + 0.5) : v;
      }
    }
}
