import type { DonorMap, Raster, Rect } from '@tersum/core';
import {
  clone,
  createRaster,
  crop,
  depthOf,
  fill,
  frameOf,
  graft,
  intersect,
  shift,
  unite,
} from '@tersum/core';
import type { Repair } from '../schema/repair.js';
import type { Patch } from './patch.js';
import { compose, patchesIn, sealPatch } from './patch.js';
import { coverageInRing, readRects, ringRect, siteRect, wholeShift } from './read-region.js';

/**
 * Decisions into pixels: replays one repair over the original and the patches below it. Quick, free of
 * chance, exact: the same record over the same pixels gives the same bytes everywhere.
 * @param repair its site must meet the picture
 * @param map the donor map a fill's search ended in; null for other methods
 */
export function replay(
  repair: Repair,
  map: DonorMap | null,
  original: Raster,
  below: readonly Patch[],
): Patch {
  const frame = frameOf(original);
  const site = siteRect(repair, frame);
  const ring = ringRect(repair, frame);
  const coverage = coverageInRing(repair, frame);
  const { method } = repair;

  if (method.kind === 'fill') {
    if (!map) throw new Error('a fill is replayed from its donor map');
    const window = readRects(repair, map, frame).reduce(unite);
    const spread = spreadCoverage(coverage, ring, window);
    const input = {
      below: compose(original, below, window),
      origin: window,
      map,
      coverage: spread,
    };
    const result = fill(input, repair.strength, { adapt: method.adapt });
    return cut(result, window, spread, site);
  }

  const input = {
    below: compose(original, below, ring),
    coverage,
    ...donorWindow(original, below, ring, wholeShift(method.donor.dx), wholeShift(method.donor.dy)),
  };
  const result =
    method.kind === 'clone' ? clone(input, repair.strength) : graft(input, repair.strength);
  const written = coverage.map((v, i) => (input.valid[i] ? v : 0));
  return cut(result, ring, written, site);
}

/** The donor's pixels in register with `ring`, and where they exist. */
function donorWindow(
  original: Raster,
  below: readonly Patch[],
  ring: Rect,
  dx: number,
  dy: number,
): { donor: Raster; valid: Uint8Array } {
  const wanted = shift(ring, dx, dy);
  const there = intersect(wanted, frameOf(original));
  const donor = createRaster(ring.width, ring.height, original.channels, depthOf(original.data));
  const valid = new Uint8Array(ring.width * ring.height);
  if (there.width === 0) return { donor, valid };
  const found = compose(original, patchesIn(below, there), there);
  const run = there.width * original.channels;
  for (let y = 0; y < there.height; y++) {
    const at = (there.y + y - wanted.y) * ring.width + there.x - wanted.x;
    donor.data.set(found.data.subarray(y * run, (y + 1) * run), at * original.channels);
    valid.fill(1, at, at + there.width);
  }
  return { donor, valid };
}

function spreadCoverage(coverage: Float32Array, from: Rect, to: Rect): Float32Array {
  const out = new Float32Array(to.width * to.height);
  for (let y = 0; y < from.height; y++)
    out.set(
      coverage.subarray(y * from.width, (y + 1) * from.width),
      (from.y + y - to.y) * to.width + from.x - to.x,
    );
  return out;
}

function cut(result: Raster, window: Rect, coverage: Float32Array, site: Rect): Patch {
  const mask = new Uint8Array(site.width * site.height);
  for (let y = 0; y < site.height; y++)
    for (let x = 0; x < site.width; x++)
      if (coverage[(site.y + y - window.y) * window.width + site.x + x - window.x]! > 0)
        mask[y * site.width + x] = 1;
  return sealPatch(site, crop(result, shift(site, -window.x, -window.y)), mask);
}
