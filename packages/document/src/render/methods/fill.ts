import { fill, frameOf, intersect, sourceRects, unite } from '@tersum/core';
import { compose } from '../patch.js';
import { coverageIn, ringRect, siteRect } from '../site-area.js';
import type { MethodReplay } from './method.js';
import { patchOf } from './method.js';

/** Fill: every pixel copied by the donor map, joints evened. */
export const fillReplay: MethodReplay = {
  reads: (_repair, map, frame) =>
    map ? sourceRects(map, frame).map((r) => intersect(r, frame)) : [],

  replay({ repair, map, original, below }) {
    if (!map || repair.method.kind !== 'fill')
      throw new Error('a fill is replayed from its donor map');
    const frame = frameOf(original);
    const ring = ringRect(repair, frame);
    const window = [ring, ...this.reads(repair, map, frame)].reduce(unite);
    const coverage = coverageIn(repair, frame, window);
    const input = { below: compose(original, below, window), origin: window, map, coverage };
    const result = fill(input, repair.strength, { adapt: repair.method.adapt });
    return patchOf(result, window, coverage, siteRect(repair, frame));
  },
};
