import type { DonorMap, Raster, Rect } from '@tersum/core';
import { createRaster, digest, onCanvas, packDonorMap, seededRandom } from '@tersum/core';
import type { Method } from '../schema/method.js';
import type { Repair } from '../schema/repair.js';
import type { Records } from '../schema/records.js';
import { NO_RECORDS } from '../schema/records.js';
import type { Site } from '../schema/site.js';
import type { Patch } from './patch.js';
import { replay } from './replay.js';
import { searchDonorMap } from './fill-search.js';
import type { FoundMap, WalkHost } from './walk.js';

/** A small noisy picture for tests. */
export function testPicture(
  width: number,
  height: number,
  depth: 'u8' | 'u16',
  channels: 1 | 3 | 4,
): Raster {
  const random = seededRandom(width * 31 + height);
  const raster = createRaster(width, height, channels, depth);
  const most = depth === 'u8' ? 255 : 65535;
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, most);
  return raster;
}

/** A name that is a well-formed UUID. */
export function testId(kind: number, n: number): string {
  return `00000000-0000-4000-8000-${String(kind * 100_000 + n).padStart(12, '0')}`;
}

export function testRepair(
  n: number,
  site: Site,
  method: Method,
  more: Partial<Repair> = {},
): Repair {
  return {
    id: testId(1, n),
    layerId: testId(2, 0),
    position: n,
    enabled: true,
    site,
    width: 8,
    softness: 0.3,
    flow: 1,
    strength: 1,
    method,
    reason: '',
    createdAt: '2026-11-02T09:00:00.000Z',
    ...more,
  };
}

export function testRecords(repairs: readonly Repair[]): Records {
  return {
    ...NO_RECORDS,
    layers: [{ id: testId(2, 0), name: 'Repairs', visible: true, position: 0 }],
    repairs,
  };
}

/** Does a walk's work on the spot, and counts it. */
export function testHost(original: Raster, found: Map<string, FoundMap>) {
  const patches = new Map<string, Patch>();
  const count = { replays: 0, searches: 0 };
  const lyingOn = (on: Rect): Raster =>
    on.width === original.width && on.height === original.height
      ? original
      : onCanvas(original, on);
  const host: WalkHost = {
    async patch(key, repair, map, below, on) {
      const known = patches.get(key);
      if (known) return known;
      count.replays++;
      const made = replay({ repair, map, original: lyingOn(on), below, elsewhere: {} });
      patches.set(key, made);
      return made;
    },
    async found(search) {
      return found.get(search);
    },
    async search(repair, below, others, later, on) {
      count.searches++;
      return searchDonorMap({ repair, original: lyingOn(on), below, others, later, damage: [] });
    },
    async keepFound(search, map: DonorMap, below) {
      const known = { map, hash: digest(packDonorMap(map)), below };
      found.set(search, known);
      return { found: known, kept: Promise.resolve() };
    },
  };
  return { host, count };
}
