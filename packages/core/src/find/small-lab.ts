import { layLab } from '../colour/lab.js';
import { toLinear } from '../colour/srgb.js';
import { layerAt } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';

/** A picture halved until its longer side is within `longest` px, as CIELAB. */
export function smallLab(
  picture: Raster,
  longest: number,
): { readonly level: number; readonly planes: readonly Plane[] } {
  const long = Math.max(picture.width, picture.height);
  const level = Math.max(0, Math.ceil(Math.log2(long / longest)));
  const { grey, colours } = layerAt(picture, level);
  const [r, g, b] = colours.length ? colours : [grey, grey, grey];
  const { width, height, values } = r!;
  const lab = [0, 1, 2].map(() => new Float32Array(values.length)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const linear = (plane: Plane, p: number): number => toLinear(plane.values[p]! / 255);
  for (let p = 0; p < values.length; p++)
    layLab(lab, p, linear(r!, p), linear(g!, p), linear(b!, p));
  return { level, planes: lab.map((v) => ({ width, height, values: v })) };
}

/** A mask halved as often: set where any of its pixels is. */
export function reducedMask(
  mask: Uint8Array,
  { width, height }: Pick<Raster, 'width' | 'height'>,
  level: number,
  small: Pick<Plane, 'width' | 'height'>,
): Uint8Array {
  const [w, h] = [small.width, small.height];
  const out = new Uint8Array(w * h);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++)
      if (mask[p]) out[Math.min(h - 1, y >> level) * w + Math.min(w - 1, x >> level)] = 1;
  return out;
}
