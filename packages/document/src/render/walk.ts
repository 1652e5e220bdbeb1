import type { DonorMap, Rect, Task } from '@tersum/core';
import { checkpoint, digestText, isEmpty, meets, NothingToCopy, portionOf } from '@tersum/core';
import type { Records, Repair } from '../schema/repair.js';
import { activeRepairs } from './order.js';
import type { Patch } from './patch.js';
import { readRects } from './replay.js';
import { siteRect } from './site-area.js';

/** Raised whenever a replay may give other bytes than before: old results are then computed anew. */
export const ENGINE_VERSION = 2;

/** What a fill's search found, and over what. */
export interface FoundMap {
  readonly map: DonorMap;
  /** Names the map's content. */
  readonly hash: string;
  /** Names what lay below when it was searched. */
  readonly below: string;
}

/** What a walk needs done for it. Results may come from anywhere as long as the bytes are the same. */
export interface WalkHost {
  /** Replays a repair, or gives back the patch made under this key before. */
  patch(key: string, repair: Repair, map: DonorMap | null, below: readonly Patch[]): Promise<Patch>;
  /** The map a search ended in, if it has. */
  found(search: string): Promise<FoundMap | undefined>;
  /** Runs a fill's search; throws NothingToCopy when it cannot be done. `others` are the repairs whose sites nothing may be copied from. */
  search(
    repair: Repair,
    below: readonly Patch[],
    others: readonly Repair[],
    task: Task,
  ): Promise<DonorMap>;
  /** Keeps what a search ended in for good. */
  keepFound(search: string, map: DonorMap, below: string): Promise<FoundMap>;
}

/** One repair's share of the rendered picture. */
export interface Rendered {
  readonly repairId: string;
  readonly patch: Patch;
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
  const repairs = activeRepairs(records).filter((r) => !isEmpty(siteRect(r, frame)));
  const rendered: Rendered[] = [];
  const failed: Failed[] = [];
  for (const [k, repair] of repairs.entries()) {
    checkpoint(task, k / repairs.length);
    const patches = rendered.map((r) => r.patch);
    try {
      const step = portionOf(task, k / repairs.length, (k + 1) / repairs.length);
      rendered.push(await one(repair, patches, repairs, original, frame, host, step));
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
  const found = repair.method.kind === 'fill' ? await decided(repair.method.search) : null;
  const below = belowRead(found?.map ?? null);
  const key = digestText(
    `${ENGINE_VERSION} ${original} ${found?.hash ?? ''} ${decisionsOf(repair)} ${namesOf(below)}`,
  );
  const patch = await host.patch(key, repair, found?.map ?? null, below);
  return {
    repairId: repair.id,
    patch,
    donorChanged: found !== null && found.below !== namesOf(below),
  };

  function belowRead(map: DonorMap | null): Patch[] {
    const rects = readRects(repair, map, frame);
    return patches.filter((p) => rects.some((r) => meets(r, p.rect)));
  }

  async function decided(search: string): Promise<FoundMap> {
    const known = await host.found(search);
    if (known) return known;
    const others = all.filter((r) => r.id !== repair.id);
    const map = await host.search(repair, patches, others, task);
    return host.keepFound(search, map, namesOf(belowRead(map)));
  }
}

const named = new WeakMap<Repair, string>();

/** Names what a repair's pixels depend on in its record; a fill's search counts by what it found. */
function decisionsOf(repair: Repair): string {
  let name = named.get(repair);
  if (name === undefined) {
    const { site, width, softness, flow, strength, method } = repair;
    const how = method.kind === 'fill' ? [method.kind, method.adapt] : method;
    name = digestText(JSON.stringify([site, width, softness, flow, strength, how]));
    named.set(repair, name);
  }
  return name;
}

function namesOf(patches: readonly Patch[]): string {
  return digestText(patches.map((p) => p.digest).join(' '));
}
