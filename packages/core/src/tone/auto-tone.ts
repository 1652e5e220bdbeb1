import { layerAt } from '../raster/layers.js';
import type { Raster } from '../raster/raster.js';
import { fadeLevels } from './auto-levels.js';
import { falloffOf, squaredRadius } from './falloff.js';
import { histogramOf } from './histogram.js';
import type { Levels } from './levels.js';

/** What undoes a print's fading. */
export interface AutoTone {
  /** Share of light lost in the corners, see {@link falloffOf}. */
  readonly falloff: number;
  /** One a colour channel. */
  readonly channels: readonly Levels[];
}

/** Longest side that is measured at, px. */
const LONGEST = 640;
const BINS = 1024;

/** Measures how a picture has faded: light that falls off towards the corners, and every channel's lost range. */
export function autoTone(picture: Raster, share?: number): AutoTone {
  const longest = Math.max(picture.width, picture.height);
  const { grey, colours } = layerAt(picture, Math.max(0, Math.ceil(Math.log2(longest / LONGEST))));
  const planes = colours.length ? colours : [grey];
  const falloff = falloffOf(planes);
  const { width, height } = grey;
  const histograms = planes.map(({ values }) => {
    const flat = values.map(
      (v, p) =>
        v / 255 / (1 - falloff * squaredRadius(p % width, Math.floor(p / width), width, height)),
    );
    return histogramOf(flat, BINS);
  });
  return { falloff, channels: fadeLevels(histograms, share) };
}
