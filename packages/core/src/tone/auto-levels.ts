import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Histogram } from './histogram.js';
import { histogramOf, quantileOf } from './histogram.js';
import type { Levels } from './levels.js';

/** Share of the samples that may clip at either end, unless asked otherwise: common practice, no source. */
export const CLIP_SHARE = 0.001;

/** Levels that send no more than `share` of the samples to black and as many to white. */
export function levelsFor(histogram: Histogram, share: number = CLIP_SHARE): Levels {
  const black = quantileOf(histogram, share);
  const white = quantileOf(histogram, 1 - share);
  return white - black < 0.02 ? { black: 0, white: 1, gamma: 1 } : { black, white, gamma: 1 };
}

/** Bins fine enough for 12 bits. */
const FINE = 4096;

/** Levels of a picture by {@link levelsFor}: of all its channels together, and of each; alpha is left out. */
export function levelsOf(picture: Raster, share: number): { all: Levels; each: Levels[] } {
  const white = whiteOf(picture.data);
  const each = Array.from({ length: colourChannels(picture.channels) }, (_, c) =>
    histogramOf(picture.data, FINE, c, picture.channels, white),
  );
  const counts = new Uint32Array(FINE);
  for (const own of each) own.counts.forEach((n, k) => (counts[k]! += n));
  const total = each.reduce((sum, h) => sum + h.total, 0);
  return { all: levelsFor({ counts, total }, share), each: each.map((h) => levelsFor(h, share)) };
}

/** Tones that stay above black and below white: "just short of clipping"; prints of today keep about as much. */
const ABOVE_BLACK = 0.03;
const BELOW_WHITE = 0.06;
/** Range below which a print may have been soft from the start, and how far it is then opened all the same. */
const SOFT = 0.5;
const OPENED = 0.6;
/** How far the channels' middles are drawn to each other. */
const NEUTRAL = 0.25;

/**
 * Undoes fading channel by channel: every channel's own range is opened, so paper white turns neutral, and the middles
 * are drawn towards each other. A picture of little range is opened less, as it may have had little to begin with. How
 * much is left at the ends was found on open photographs; that channels fade by themselves is common practice.
 * @param histograms one a channel
 */
export function fadeLevels(histograms: readonly Histogram[], share: number = CLIP_SHARE): Levels[] {
  const ends = histograms.map((h) => [quantileOf(h, share), quantileOf(h, 1 - share)] as const);
  const range = ends.reduce((sum, [low, high]) => sum + high - low, 0) / ends.length;
  if (range < 0.01) return histograms.map(() => ({ black: 0, white: 1, gamma: 1 }));
  const opened = range < SOFT ? Math.pow(range / SOFT, OPENED) * (SOFT / range) : 1;
  const open = ends.map(([low, high]) => {
    const middle = (low + high) / 2;
    const kept = Math.max(0.02, high - low) * opened;
    const width = kept / (1 - ABOVE_BLACK - BELOW_WHITE);
    const black = middle - kept / 2 - ABOVE_BLACK * width;
    return { black, white: black + width };
  });
  const middles = histograms.map((h, c) => {
    const { black, white } = open[c]!;
    return Math.min(0.95, Math.max(0.05, (quantileOf(h, 0.5) - black) / (white - black)));
  });
  const common = Math.exp(middles.reduce((sum, m) => sum + Math.log(m), 0) / middles.length);
  return open.map((levels, c) => ({
    ...levels,
    gamma: Math.pow(Math.log(common) / Math.log(middles[c]!), -NEUTRAL),
  }));
}
