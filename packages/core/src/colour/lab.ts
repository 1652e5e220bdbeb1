import { toLinear } from './srgb.js';

/** CIELAB coordinates, L* 0..100, relative to D65. */
export interface Lab {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** D65 white of IEC 61966-2-1 (Y = 1). */
const WHITE = { X: 0.95047, Y: 1, Z: 1.08883 };

/** CIELAB of an encoded sRGB colour (each 0..1); ISO/CIE 11664-4, matrix of IEC 61966-2-1. */
export function labOfSrgb(red: number, green: number, blue: number): Lab {
  return labOfLinear(toLinear(red), toLinear(green), toLinear(blue));
}

/** CIELAB of linear light in the primaries of sRGB (each 0..1). */
export function labOfLinear(r: number, g: number, b: number): Lab {
  layLab(one, 0, r, g, b);
  return { L: one[0][0]!, a: one[1][0]!, b: one[2][0]! };
}

const one = [new Float64Array(1), new Float64Array(1), new Float64Array(1)] as const;

/** The same, laid down at a place of three planes: of many pixels, nothing is made for each. */
export function layLab(
  planes: readonly [Float32Array, Float32Array, Float32Array] | typeof one,
  p: number,
  r: number,
  g: number,
  b: number,
): void {
  const fx = response((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / WHITE.X);
  const fy = response((0.2126729 * r + 0.7151522 * g + 0.072175 * b) / WHITE.Y);
  const fz = response((0.0193339 * r + 0.119192 * g + 0.9503041 * b) / WHITE.Z);
  planes[0][p] = 116 * fy - 16;
  planes[1][p] = 500 * (fx - fy);
  planes[2][p] = 200 * (fy - fz);
}

function response(t: number): number {
  return t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116;
}
