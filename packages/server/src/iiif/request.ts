import { UserProblem } from '@tersum/codec';
import type { Rect } from '@tersum/core';
import { intersect } from '@tersum/core';

interface Size {
  readonly width: number;
  readonly height: number;
}

const WHOLE = /^\d+$/;

/** The region of a picture that an image request names: full, square, or x,y,w,h (IIIF Image API 3.0, 4.1). */
export function regionOf(text: string, { width, height }: Size): Rect {
  const frame = { x: 0, y: 0, width, height };
  if (text === 'full') return frame;
  if (text === 'square') {
    const side = Math.min(width, height);
    return { x: (width - side) >> 1, y: (height - side) >> 1, width: side, height: side };
  }
  const parts = text.split(',');
  if (parts.length !== 4 || !parts.every((p) => WHOLE.test(p)))
    throw new UserProblem(400, 'The region must be full, square, or x,y,w,h in whole pixels.');
  const [x, y, w, h] = parts.map(Number) as [number, number, number, number];
  const region = intersect({ x, y, width: w, height: h }, frame);
  if (!region.width || !region.height)
    throw new UserProblem(400, 'This region lies outside of the picture.');
  return region;
}

/** The size in which a region is wanted: max, w, or ,h or w,h; never larger than it is (4.2). */
export function sizeOf(text: string, region: Size): Size {
  if (text === 'max') return { width: region.width, height: region.height };
  const match = /^(\d*),(\d*)$/.exec(text);
  const [w, h] = [Number(match?.[1] ?? 0), Number(match?.[2] ?? 0)];
  if (!match || (!w && !h))
    throw new UserProblem(400, 'The size must be max, “w,”, “,h” or “w,h” in whole pixels.');
  const size = {
    width: w || Math.max(1, Math.round((region.width * h) / region.height)),
    height: h || Math.max(1, Math.round((region.height * w) / region.width)),
  };
  if (size.width > region.width || size.height > region.height)
    throw new UserProblem(400, 'A part is not given larger than it is.');
  return size;
}
