import type { Rect } from '@tersum/core';
import {
  crop,
  EXPECTED_RING,
  fill,
  frameOf,
  GRAIN_RING,
  grainBack,
  grow,
  intersect,
  shift,
  sourceRects,
  unite,
} from '@tersum/core';
import type { Repair } from '../../schema/repair.js';
import { compose } from '../patch.js';
import { coverageIn, ringRect, siteRect } from '../site-area.js';
import type { MethodReplay } from './method.js';
import { patchOf } from './method.js';

/** Fill: every pixel copied by the donor map, joints evened. */
export const fillReplay: MethodReplay = {
  reads: (repair, map, frame) => [
    ...(map ? sourceRects(map, frame) : []).map((r) => intersect(r, frame)),
    ...(map ? [intersect(grow(siteRect(repair, frame), EXPECTED_RING), frame)] : []),
    ...(grainOf(repair) > 0 ? [grainWindow(repair, frame)] : []),
  ],

  replay({ repair, map, original, below }, crew) {
    if (!map || repair.method.kind !== 'fill')
      throw new Error('a fill is replayed from its donor map');
    const frame = frameOf(original);
    const ring = ringRect(repair, frame);
    const window = [ring, ...this.reads(repair, map, frame)].reduce(unite);
    const coverage = coverageIn(repair, frame, window);
    const input = { below: compose(original, below, window), origin: window, map, coverage };
    const result = fill(input, repair.strength, { adapt: repair.method.adapt, crew });
    const site = siteRect(repair, frame);
    if (!repair.method.grain) return patchOf(result, window, coverage, site);
    const near = grainWindow(repair, frame);
    const covered = coverageIn(repair, frame, near);
    const { grain, seed } = repair.method;
    const grained = grainBack(
      crop(result, shift(near, -window.x, -window.y)),
      covered,
      grain,
      seed,
    );
    return patchOf(grained, near, covered, site);
  },
};

function grainOf({ method }: Repair): number {
  return method.kind === 'fill' ? method.grain : 0;
}

/** The site with as much round it as its grain is told by. */
function grainWindow(repair: Repair, frame: Rect): Rect {
  return intersect(grow(siteRect(repair, frame), GRAIN_RING), frame);
}
