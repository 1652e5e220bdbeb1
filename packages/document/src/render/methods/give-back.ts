import { crop, frameOf, layOver } from '@tersum/core';
import { compose } from '../patch.js';
import { coverageIn, siteRect } from '../site-area.js';
import type { MethodReplay } from './method.js';
import { patchOf } from './method.js';

/** The original shows again. */
export const giveBackReplay: MethodReplay = {
  reads: () => [],
  replay({ repair, original, below }) {
    const frame = frameOf(original);
    const site = siteRect(repair, frame);
    const coverage = coverageIn(repair, frame, site);
    const result = layOver(
      compose(original, below, site),
      crop(original, site),
      coverage,
      repair.strength,
    );
    return patchOf(result, site, coverage, site);
  },
};
