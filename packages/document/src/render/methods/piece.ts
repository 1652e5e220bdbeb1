import type { PointMap, Rect } from '@tersum/core';
import {
  clone,
  crop,
  frameOf,
  graft,
  grow,
  intersect,
  isEmpty,
  NothingToCopy,
  resampleBy,
} from '@tersum/core';
import { compose, patchesIn } from '../patch.js';
import { piecePlace } from '../piece-place.js';
import { coverageIn, ringRect, siteRect } from '../site-area.js';
import { elsewhereOf } from './donor-window.js';
import type { MethodReplay, ReplayInput } from './method.js';
import { patchOf } from './method.js';

/** A lifted copy, laid down elsewhere. */
export const pieceReplay: MethodReplay = {
  reads(repair, _map, frame) {
    const place = piecePlace(repair);
    return place.donor.picture === null ? [liftedRect(place.lifted, frame)] : [];
  },

  replay(input) {
    const { repair, original, below } = input;
    const frame = frameOf(original);
    const place = piecePlace(repair);
    const ring = ringRect(repair, frame);
    const coverage = coverageIn(repair, frame, ring);
    const { source, at, whole } = liftedPixels(input, place.lifted, place.donor.picture);
    const [dx, dy] = [place.donor.dx, place.donor.dy];
    const map: PointMap = (x, y, to) => {
      const [rx, ry] = place.lay.toRest([x, y]);
      to[0] = rx + dx;
      to[1] = ry + dy;
    };
    const wide = Math.max(1, 1 / place.donor.scale);
    const { raster, valid } = resampleBy(
      source,
      at,
      map,
      wide,
      ring,
      whole,
      (p) => coverage[p]! > 0,
    );
    const parts = { below: compose(original, below, ring), donor: raster, valid, coverage };
    const result = place.matchTone ? graft(parts, repair.strength) : clone(parts, repair.strength);
    const written = coverage.map((v, i) => (valid[i] ? v : 0));
    return patchOf(result, ring, written, siteRect(repair, frame));
  },
};

function liftedRect(lifted: Rect, frame: Rect): Rect {
  return intersect(grow(lifted, 8), frame);
}

function liftedPixels(input: ReplayInput, lifted: Rect, picture: string | null) {
  const { original, below } = input;
  const other = picture === null ? null : elsewhereOf(input, picture);
  const whole = frameOf(other ?? original);
  const at = liftedRect(lifted, whole);
  if (isEmpty(at)) throw new NothingToCopy('This piece was lifted from outside the picture.');
  const source = other ? crop(other, at) : compose(original, patchesIn(below, at), at);
  return { source, at, whole };
}
