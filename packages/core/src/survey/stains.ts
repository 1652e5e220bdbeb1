import { ciede2000 } from '../colour/ciede2000.js';
import type { Lab } from '../colour/lab.js';
import type { Layer } from '../raster/layers.js';
import { piecesOf } from './pieces.js';
import { toneCurveOf } from './tone-curve.js';
import { maskWhere } from '../shape/mask-where.js';

/** A stain, or a shadow along a fold, at the level it was found at. */
export interface Stain {
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
  /** CIEDE2000 between it and what the print would be there without it. */
  readonly contrast: number;
}

/** What a stain's colour differs by where it is clear, CIELAB units, and how much of that it differs by everywhere. */
const OFF = 5;
const FAINT = 0.5;
/** The least and greatest share of the picture that it takes, and the share of it that is clear. */
const SHARE = { least: 0.0008, most: 0.2, clear: 0.1 } as const;

/**
 * Stains on prints of one tone: where the colour leaves the curve that ties it to lightness everywhere else. Pictures in
 * colour tie nothing to anything, and get none.
 * @param layer small: about 400 px across
 */
export function stainsOf(layer: Layer): Stain[] {
  if (!layer.colours.length) return [];
  const { width, height } = layer.grey;
  const count = width * height;
  const { labs, at, stray, usual, oneTone } = toneCurveOf(layer);
  if (!oneTone) return [];
  const off = labs.map(stray);
  const least = OFF * Math.max(0.5, usual) ** 0.5;
  // Its rim is clearest; within, it may hardly tint.
  const tinted = maskWhere(off.length, (p) => off[p]! > FAINT * least);
  for (const { pixels } of piecesOf(tinted, width)) {
    const clear = pixels.filter((p) => off[p]! > least);
    const own = FAINT * meanOf(clear, (p) => off[p]!);
    // What is fainter than a stain so clear ever gets lies beside it.
    const much = clear.length > SHARE.clear * pixels.length;
    for (const p of pixels) if (!much || off[p]! < own) tinted[p] = 0;
  }
  return piecesOf(tinted, width)
    .filter(
      ({ pixels }) => pixels.length > SHARE.least * count && pixels.length < SHARE.most * count,
    )
    .map(({ pixels, left, right, top, bottom }): Stain => {
      const filled = pixels.length / ((right - left + 1) * (bottom - top + 1));
      return {
        pixels,
        odds:
          2 * Math.log(meanOf(pixels, (p) => off[p]!) / 8) +
          4 * (filled - 0.45) +
          Math.log(pixels.length / count / 0.004) / 2,
        polarity: -1,
        contrast: ciede2000(
          meanLab(pixels, (p) => labs[p]!),
          meanLab(pixels, (p) => ({ L: labs[p]!.L, ...at(labs[p]!) })),
        ),
      };
    });
}

function meanOf(pixels: Int32Array, of: (p: number) => number): number {
  return pixels.reduce((sum, p) => sum + of(p), 0) / pixels.length;
}

function meanLab(pixels: Int32Array, of: (p: number) => Lab): Lab {
  return {
    L: meanOf(pixels, (p) => of(p).L),
    a: meanOf(pixels, (p) => of(p).a),
    b: meanOf(pixels, (p) => of(p).b),
  };
}
