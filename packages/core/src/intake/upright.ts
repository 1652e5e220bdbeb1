import type { Raster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { resampleBy } from '../raster/resample.js';
import { through } from '../shape/homography.js';
import type { Point } from '../shape/site.js';
import type { Quad } from './quad.js';
import { fromUpright, rectangleOf, uprightSize, warpOf } from './quad.js';

/** Corners off a true rectangle by less than this share of a side: the print lay flat and is only turned. */
const FLAT = 0.004;

/** The quadrilateral a print is cut out by: a true rectangle where it lay flat, else its own corners. */
export function cutOf(quad: Quad): Quad {
  return warpOf(quad) < FLAT ? rectangleOf(quad) : quad;
}

/** A print cut out of the picture it lies in, straightened; its own pixels keep their size. */
export function uprightPrint(picture: Raster, quad: Quad): Raster {
  const cut = cutOf(quad);
  const { width, height } = uprightSize(cut);
  return throughMap(picture, cut, width, height);
}

/** The picture turned back by an angle and cut to the largest rectangle, of its own shape, without gaps. */
export function levelPicture(picture: Raster, angle: number): Raster {
  if (angle === 0) return picture;
  const quad = levelQuad(picture, angle);
  const { width, height } = uprightSize(quad);
  return throughMap(picture, quad, width, height);
}

/**
 * Corners of the largest rectangle of the picture's shape that stands turned with its content and fits into it.
 * @param angle degrees the content stands turned counter-clockwise
 */
export function levelQuad(
  { width, height }: { width: number; height: number },
  angle: number,
): Quad {
  const a = (angle * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const [ac, as] = [Math.abs(c), Math.abs(s)];
  const k = Math.min(width / (width * ac + height * as), height / (width * as + height * ac));
  const [w, h] = [(width * k) / 2, (height * k) / 2];
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const at = (x: number, y: number): Point => [cx + c * x + s * y, cy - s * x + c * y];
  return [at(-w, -h), at(w, -h), at(w, h), at(-w, h)];
}

/** What lies in a quadrilateral, as a picture of a given size. Samples are interpolated as they stand. */
export function throughMap(picture: Raster, quad: Quad, width: number, height: number): Raster {
  const map = fromUpright(quad, width, height);
  const frame = frameOf(picture);
  const own = uprightSize(quad);
  const wide = Math.max(1, own.width / width, own.height / height);
  const target = { x: 0, y: 0, width, height };
  return resampleBy(
    picture,
    frame,
    (x, y, to) => {
      const [u, v] = through(map, [x, y]);
      to[0] = Math.min(frame.width - 1, Math.max(0, u));
      to[1] = Math.min(frame.height - 1, Math.max(0, v));
    },
    wide,
    target,
    frame,
  ).raster;
}
