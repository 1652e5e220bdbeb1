import { labOfSrgb } from '../colour/lab.js';
import type { Layer } from '../raster/layers.js';
import { boxMean } from '../raster/plane.js';
import { piecesOf } from './pieces.js';
import { maskWhere } from '../shape/mask-where.js';

/** Something that draws the eye away from the subject, at the level it was found at. */
export interface Pull {
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
}

/** Largest share of a picture a pull takes. */
const MOST = 0.012;
/** Half the sides of the squares a place is compared with, shares of the shorter side. */
const INNER = 0.012;
const OUTER = 0.12;

/**
 * Small bright or saturated things that stand out from their wide surroundings, the nearer the frame the more: common
 * practice has it that the eye goes to brightness and saturation first.
 * @param layer small: about 400 px across
 */
export function pullsOf({ grey, colours }: Layer): Pull[] {
  const { width, height } = grey;
  const shorter = Math.min(width, height);
  const planes = (colours.length ? colours : [grey, grey, grey]).map(({ values }) => values);
  const lab = [new Float32Array(width * height), new Float32Array(width * height)] as const;
  for (let p = 0; p < width * height; p++) {
    const {
      L: l,
      a,
      b,
    } = labOfSrgb(planes[0]![p]! / 255, planes[1]![p]! / 255, planes[2]![p]! / 255);
    lab[0][p] = l;
    lab[1][p] = Math.hypot(a, b);
  }
  const stands = lab.map((values) => {
    const plane = { width, height, values };
    const near = boxMean(plane, Math.max(1, Math.round(INNER * shorter))).values;
    const wide = boxMean(plane, Math.round(OUTER * shorter)).values;
    return near.map((v, p) => v - wide[p]!);
  });
  const strength = stands[0]!.map((l, p) => Math.max(0, l) + Math.max(0, stands[1]![p]!));
  const sorted = strength.slice().sort();
  const least = Math.max(28, sorted[Math.floor(0.985 * sorted.length)]!);
  const mask = maskWhere(strength.length, (p) => strength[p]! >= least);
  return piecesOf(mask, width)
    .filter(({ pixels }) => pixels.length >= 12 && pixels.length < MOST * width * height)
    .map((piece): Pull => {
      const mean = piece.pixels.reduce((sum, p) => sum + strength[p]!, 0) / piece.pixels.length;
      const [cx, cy] = [
        (piece.left + piece.right) / 2 / width - 0.5,
        (piece.top + piece.bottom) / 2 / height - 0.5,
      ];
      const outward = Math.min(1, 2 * Math.max(Math.abs(cx), Math.abs(cy)));
      return {
        pixels: piece.pixels,
        odds:
          3 * Math.log(mean / 45) + 2 * (outward - 0.6) + 0.5 * Math.log(piece.pixels.length / 60),
        polarity: 1,
      };
    });
}
