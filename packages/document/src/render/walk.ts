import type { DonorMap, Rect, Task, UnsurePlace } from '@tersum/core';
import {
  checkpoint,
  digestText,
  isEmpty,
  meets,
  NothingToCopy,
  portionOf,
  unsurePlaces,
} from '@tersum/core';
import type { FillWishes } from '../schema/fill.js';
import type { Repair } from '../schema/repair.js';
import type { Records } from '../schema/records.js';
import { groundsOf, otherMends } from './canvas.js';
import { activeRepairs } from './order.js';
import type { Patch } from './patch.js';
import { readRects } from './replay.js';
import { siteRect } from './site-area.js';

/** Raised whenever a replay may give other bytes than before: old results are then computed anew. */
export const ENGINE_VERSION = 3;

/** What a fill's search found, and over what. */
export interface FoundMap {
  readonly map: DonorMap;
  /** Names the map's content. */
  readonly hash: string;
  /** Names what lay below when it was searched. */
  readonly below: string;
}

/** What a search ended in, at hand at once, on its way to where it is kept. */
export interface Keeping {
  readonly found: FoundMap;
  /** Once it is kept for good. */
  readonly kept: Promise<void>;
}

/**
 * What a walk needs done for it. Results may come from anywhere as long as the bytes are the same. `on` is where the picture
 * lies for the repair: the original's frame, or a canvas that is told in its coordinates.
 */
export interface WalkHost {
  /** Replays a repair, or gives back the patch made under this key before. */
  patch(
    key: string,
    repair: Repair,
    map: DonorMap | null,
    below: readonly Patch[],
    on: Rect,
  ): Promise<Patch>;
  /** The map a search ended in, if it has. */
  found(search: string): Promise<FoundMap | undefined>;
  /**
   * Runs a fill's search; throws NothingToCopy when it cannot be done. `others` are the repairs whose sites nothing may
   * be copied from, `later` those of them that come after it.
   */
  search(
    repair: Repair,
    below: readonly Patch[],
    others: readonly Repair[],
    later: readonly Repair[],
    on: Rect,
    task: Task,
  ): Promise<DonorMap>;
  /** Keeps what a search ended in for good. */
  keepFound(search: string, map: DonorMap, below: string): Promise<Keeping>;
}

/** One repair's share of the rendered picture. */
export interface Rendered {
  readonly repairId: string;
  readonly patch: Patch;
  /** Where a fill is least sure of itself. */
  readonly unsure: readonly UnsurePlace[];
  /** What the donors were searched over has changed since: a person may want a new search. */
  readonly donorChanged: boolean;
}

/** A repair that could not be computed, and why. */
export interface Failed {
  readonly repairId: string;
  readonly message: string;
}

export interface Rendering {
  readonly rendered: readonly Rendered[];
  readonly failed: readonly Failed[];
}

/**
 * Walks the repairs in order and gives each its patch. A patch is named by its record and by the content of
 * every patch below that meets its read region: an unchanged name means unchanged bytes, so only what a
 * change really reaches is replayed, and the walk stops where bytes come out as before. A fill that finds
 * nothing to copy is named as failed and the walk goes on without it.
 * @param original names the original's content
 * @throws Cancelled
 */
export async function walk(
  records: Records,
  original: string,
  frame: Rect,
  host: WalkHost,
  task?: Task,
): Promise<Rendering> {
  const active = activeRepairs(records);
  const grounds = groundsOf(active, frame);
  const repairs = active.filter((r) => !isEmpty(siteRect(r, grounds.of(r))));
  const rendered: Rendered[] = [];
  const failed: Failed[] = [];
  for (const [k, repair] of repairs.entries()) {
    checkpoint(task, k / repairs.length);
    const patches = rendered.map((r) => r.patch);
    try {
      const step = portionOf(task, k / repairs.length, (k + 1) / repairs.length);
      const on = grounds.of(repair);
      const name = on === frame ? original : `${original} ${placeName(on)}`;
      rendered.push(await one(repair, patches, repairs, name, on, host, step));
    } catch (error) {
      if (!(error instanceof NothingToCopy)) throw error;
      failed.push({ repairId: repair.id, message: error.message });
    }
  }
  checkpoint(task, 1);
  return { rendered, failed };
}

async function one(
  repair: Repair,
  patches: readonly Patch[],
  all: readonly Repair[],
  original: string,
  frame: Rect,
  host: WalkHost,
  task: Task,
): Promise<Rendered> {
  const decision = repair.method.kind === 'fill' ? await decided(repair.method.search) : null;
  const found = decision?.found ?? null;
  const below = patchesRead(repair, found?.map ?? null, patches, frame);
  const key = digestText(
    `${ENGINE_VERSION} ${original} ${found?.hash ?? ''} ${decisionsOf(repair)} ${namesOf(below)}`,
  );
  // Nothing is shown before what it comes from is kept; meanwhile it can be computed.
  const [patch] = await Promise.all([
    host.patch(key, repair, found?.map ?? null, below, frame),
    decision?.kept,
  ]);
  return {
    repairId: repair.id,
    patch,
    unsure: found ? unsureOf(found) : [],
    donorChanged: found !== null && found.below !== namesOf(below),
  };

  async function decided(search: string): Promise<Keeping> {
    const known = await host.found(search);
    if (known) return { found: known, kept: Promise.resolve() };
    const others = otherMends(all, repair.id);
    const later = otherMends(all.slice(all.indexOf(repair) + 1), repair.id);
    const map = await host.search(repair, patches, others, later, frame, task);
    return host.keepFound(search, map, belowName(repair, map, patches, frame));
  }
}

function placeName({ x, y, width, height }: Rect): string {
  return `${x},${y},${width},${height}`;
}

/** Names what a fill's search read: when it changes, the donors it chose may not suit any more. */
export function belowName(
  repair: Repair,
  map: DonorMap,
  patches: readonly Patch[],
  frame: Rect,
): string {
  return namesOf(patchesRead(repair, map, patches, frame));
}

function patchesRead(
  repair: Repair,
  map: DonorMap | null,
  patches: readonly Patch[],
  frame: Rect,
): Patch[] {
  const rects = readRects(repair, map, frame);
  return patches.filter((p) => rects.some((r) => meets(r, p.rect)));
}

const doubts = new WeakMap<DonorMap, UnsurePlace[]>();

function unsureOf({ map }: FoundMap): UnsurePlace[] {
  let places = doubts.get(map);
  if (!places) doubts.set(map, (places = unsurePlaces(map)));
  return places;
}

const named = new WeakMap<Repair, string>();

/** Names what a repair's pixels depend on in its record; a fill's search counts by what it found. */
function decisionsOf(repair: Repair): string {
  let name = named.get(repair);
  if (name === undefined) {
    const { site, width, softness, flow, strength, method } = repair;
    const how = method.kind === 'fill' ? fillNamed(method) : method;
    name = digestText(JSON.stringify([site, width, softness, flow, strength, how]));
    named.set(repair, name);
  }
  return name;
}

/** What of a fill counts beside what its search found. */
function fillNamed({ kind, adapt, grain, seed }: { kind: 'fill' } & FillWishes): unknown[] {
  return grain > 0 ? [kind, adapt, grain, seed] : [kind, adapt];
}

function namesOf(patches: readonly Patch[]): string {
  return digestText(patches.map((p) => p.digest).join(' '));
}
