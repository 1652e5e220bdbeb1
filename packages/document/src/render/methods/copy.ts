import type { Fetched, Rect } from '@tersum/core';
import { clone, frameOf, graft, layOver, sideShares } from '@tersum/core';
import type { Donor } from '../../schema/donor.js';
import { isPlainShift } from '../../schema/donor.js';
import type { CopyMethod } from '../../schema/method.js';
import { isCopy } from '../../schema/method.js';
import type { Repair } from '../../schema/repair.js';
import { compose } from '../patch.js';
import { coverageIn, ringRect, siteMiddle, siteRect } from '../site-area.js';
import { donorReads, donorWindow } from './donor-window.js';
import type { MethodReplay, ReplayInput } from './method.js';
import { patchOf } from './method.js';

/** Clone, graft and patch: content of one place (or of two sides) laid into the site. */
export const copyReplay: MethodReplay = {
  reads(repair, _map, frame) {
    const { donor, other } = methodOf(repair);
    const middle = siteMiddle(repair);
    const ring = ringRect(repair, frame);
    return [donor, ...(other ? [other] : [])].flatMap((d) => donorReads(d, middle, ring, frame));
  },

  replay(input) {
    const { repair, original, below } = input;
    const method = methodOf(repair);
    const frame = frameOf(original);
    const ring = ringRect(repair, frame);
    const coverage = coverageIn(repair, frame, ring);
    const { raster: donor, valid } = fetchBoth(input, method, ring);
    if (isOwnContent(method))
      for (let p = 0; p < valid.length; p++) if (!(coverage[p]! > 0)) valid[p] = 0;
    const parts = { below: compose(original, below, ring), donor, valid, coverage };
    const grafts = (method.kind === 'patch' ? method.as : method.kind) === 'graft';
    const result = grafts ? graft(parts, repair.strength) : clone(parts, repair.strength);
    const written = coverage.map((v, i) => (valid[i] ? v : 0));
    return patchOf(result, ring, written, siteRect(repair, frame));
  },
};

function methodOf({ method }: Repair): CopyMethod {
  if (!isCopy(method)) throw new Error('not a method that copies from one place');
  return method;
}

/** A graft from where it stands: what was pasted there is brought into its surroundings' tone. */
function isOwnContent({ donor, other }: CopyMethod): boolean {
  const stays = (d: Donor): boolean =>
    d.picture === null && d.dx === 0 && d.dy === 0 && isPlainShift(d);
  return stays(donor) && !other;
}

function fetchBoth(input: ReplayInput, { donor, other }: CopyMethod, ring: Rect): Fetched {
  const { repair } = input;
  const middle = siteMiddle(repair);
  const first = donorWindow(input, donor, middle, ring);
  if (!other) return first;
  const second = donorWindow(input, other, middle, ring);
  const towards = [donor.dx - other.dx, donor.dy - other.dy] as const;
  const shares = sideShares(repair.site, repair, towards, ring);
  const valid = new Uint8Array(shares.length);
  for (let p = 0; p < valid.length; p++) {
    if (!first.valid[p]) shares[p] = 0;
    else if (!second.valid[p]) shares[p] = 1;
    valid[p] = first.valid[p]! | second.valid[p]!;
  }
  return { raster: layOver(second.raster, first.raster, shares, 1), valid };
}
