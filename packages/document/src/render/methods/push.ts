import type { Rect } from '@tersum/core';
import { frameOf, grow, intersect, layOver, pathOf, pushMap, resampleBy } from '@tersum/core';
import type { Repair } from '../../schema/repair.js';
import { compose } from '../patch.js';
import { coverageIn, siteRect } from '../site-area.js';
import type { MethodReplay } from './method.js';
import { patchOf } from './method.js';

/** Content carried along under a round soft brush. */
export const pushReplay: MethodReplay = {
  reads: (repair, _map, frame) => [reach(repair, frame)],
  replay({ repair, original, below }) {
    const frame = frameOf(original);
    const site = siteRect(repair, frame);
    const from = reach(repair, frame);
    const map = pushMap(pathOf(repair.site), repair.width / 2, repair.strength, frame);
    const coverage = coverageIn(repair, frame, site);
    const { raster, valid } = resampleBy(
      compose(original, below, from),
      from,
      map,
      1,
      site,
      frame,
      (p) => coverage[p]! > 0,
    );
    const all = coverage.map((v, p) => (v > 0 && valid[p] ? 1 : 0));
    return patchOf(layOver(compose(original, below, site), raster, all, 1), site, all, site);
  },
};

/** Content comes from under the brush: never from farther than the stroke is wide. */
function reach(repair: Repair, frame: Rect): Rect {
  return intersect(grow(siteRect(repair, frame), Math.ceil(repair.width / 2) + 3), frame);
}
