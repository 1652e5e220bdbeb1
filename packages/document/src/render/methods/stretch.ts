import type { Raster, Rect } from '@tersum/core';
import { canvasRect, coverageOf, crop, frameOf, shift, stretched } from '@tersum/core';
import { compose, sealPatch } from '../patch.js';
import type { MethodReplay } from './method.js';

/** Stretch: the background longer or shorter, what is protected moved as a whole; it begins from the picture below. */
export const stretchReplay: MethodReplay = {
  reads: (_, __, frame) => [frame],

  replay({ repair: { method }, original, below }) {
    if (method.kind !== 'stretch') throw new Error('not a stretch');
    const { sides, kept } = method;
    const all = frameOf(original);
    // The widening sees its canvas and the original's frame: what is not on the canvas side is the original's.
    const frame: Rect = {
      x: 0,
      y: 0,
      width: all.width - Math.max(0, sides.left) - Math.max(0, sides.right),
      height: all.height - Math.max(0, sides.top) - Math.max(0, sides.bottom),
    };
    const before = compose(original, below, all);
    const inner = crop({ ...before, at: [all.x, all.y] }, frame);
    const { picture } = stretched(inner, sides, protectedIn(kept, frame));
    const canvas = canvasRect(frame, sides);
    return sealPatch(canvas, picture, changes(before, all, picture, canvas));
  },
};

function protectedIn(outlines: readonly (readonly [number, number][])[], frame: Rect): Uint8Array {
  const mask = new Uint8Array(frame.width * frame.height);
  for (const points of outlines) {
    const brush = { width: 1, softness: 0, flow: 1 };
    const { rect, values } = coverageOf({ kind: 'outline', points }, brush, frame);
    for (let i = 0; i < values.length; i++)
      if (values[i]! > 0)
        mask[(rect.y + Math.floor(i / rect.width)) * frame.width + rect.x + (i % rect.width)] = 1;
  }
  return mask;
}

/** 1 where the stretched picture differs from what stood there. */
function changes(before: Raster, all: Rect, after: Raster, canvas: Rect): Uint8Array {
  const { channels } = after;
  const mask = new Uint8Array(canvas.width * canvas.height);
  const at = shift(canvas, -all.x, -all.y);
  for (let y = 0, p = 0; y < canvas.height; y++)
    for (let x = 0; x < canvas.width; x++, p++) {
      const q = ((at.y + y) * all.width + at.x + x) * channels;
      for (let c = 0; c < channels && !mask[p]; c++)
        if (before.data[q + c] !== after.data[p * channels + c]) mask[p] = 1;
    }
  return mask;
}
