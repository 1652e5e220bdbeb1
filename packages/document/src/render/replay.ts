import type { Crew, DonorMap, Rect } from '@tersum/core';
import { alone, isEmpty } from '@tersum/core';
import type { MethodKind } from '../schema/method.js';
import type { Repair } from '../schema/repair.js';
import { copyReplay } from './methods/copy.js';
import { fillReplay } from './methods/fill.js';
import { giveBackReplay } from './methods/give-back.js';
import type { MethodReplay, ReplayInput } from './methods/method.js';
import { pieceReplay } from './methods/piece.js';
import { pushReplay } from './methods/push.js';
import { stretchReplay } from './methods/stretch.js';
import type { Patch } from './patch.js';
import { ringRect } from './site-area.js';

const METHODS: Record<MethodKind, MethodReplay> = {
  clone: copyReplay,
  graft: copyReplay,
  patch: copyReplay,
  fill: fillReplay,
  piece: pieceReplay,
  push: pushReplay,
  stretch: stretchReplay,
  'give back': giveBackReplay,
};

/**
 * Decisions into pixels: replays one repair over the original and the patches below it. Quick, free of
 * chance, exact: the same record over the same pixels gives the same bytes everywhere.
 * @param crew threads that may share the work; the bytes do not depend on them
 * @throws NothingToCopy when what it copies from is gone
 */
export function replay(input: ReplayInput, crew: Crew = alone): Patch {
  return METHODS[input.repair.method.kind].replay(input, crew);
}

interface Reads {
  readonly map: DonorMap | null;
  readonly frame: string;
  readonly rects: Rect[];
}

/** Every walk asks for the read regions of all repairs: records do not change, so neither do these. */
const known = new WeakMap<Repair, Reads>();

/** Everything a replay reads: site, ring and donors. */
export function readRects(repair: Repair, map: DonorMap | null, frame: Rect): Rect[] {
  const size = `${frame.x} ${frame.y} ${frame.width} ${frame.height}`;
  const last = known.get(repair);
  if (last && last.map === map && last.frame === size) return last.rects;
  const reads = METHODS[repair.method.kind].reads(repair, map, frame);
  const rects = [ringRect(repair, frame), ...reads].filter((r) => !isEmpty(r));
  known.set(repair, { map, frame: size, rects });
  return rects;
}
