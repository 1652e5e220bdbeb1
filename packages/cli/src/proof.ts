import type { Raster, SiteTell } from '@tersum/core';
import {
  changedBetween,
  isBeyond,
  leftoversOf,
  pullsLeft,
  sitesOf,
  TELL_LIMITS,
  tellsOf,
} from '@tersum/core';
import { Meter, readMask, readPicture, writeReport } from './files.js';
import { BadUsage, needed, readMany } from './usage.js';

const OPTIONS = {
  mask: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

/** `tersum proof`: what gives the repairs between two pictures away. */
export async function proofCommand(args: string[]): Promise<void> {
  const { inputs, values } = readMany(args, OPTIONS);
  const [first, second, ...more] = inputs;
  if (!first || !second || more.length)
    throw new BadUsage('name two pictures, as received and as repaired');
  const to = needed(values.json, 'json');
  const meter = new Meter();
  const { before, after, given } = await meter.time('load', async () => {
    const after = (await readPicture(second)).raster;
    return {
      before: (await readPicture(first)).raster,
      after,
      given: values.mask ? await readMask(values.mask, after) : null,
    };
  });
  const { sites, tells } = await meter.time('engine', async () => {
    try {
      const changed = changedBetween(before, after);
      const sites = sitesOf(given ?? changed, after.width);
      return {
        sites,
        tells: [...tellsOf(after, sites), ...leftoversOf(after, sites), ...pullsIn(after, sites)],
      };
    } catch (error) {
      throw error instanceof RangeError ? new BadUsage(error.message) : error;
    }
  });
  await writeReport(to, {
    command: 'proof',
    sites: sites.length,
    tells: tells.map(({ box, twin, ...tell }) => ({
      ...tell,
      bbox: [box.x, box.y, box.width, box.height],
      ...(twin ? { twin_bbox: [twin.x, twin.y, twin.width, twin.height] } : {}),
    })),
    ...meter.report(),
  });
}

/** What draws the eye and lies in a repair for the most part. */
function pullsIn(picture: Raster, sites: readonly Int32Array[]): SiteTell[] {
  if (!sites.length) return [];
  const repaired = new Set(sites.flatMap((site) => [...site]));
  const limit = TELL_LIMITS.pull;
  return pullsLeft(picture)
    .filter(({ value, box }) => {
      if (!isBeyond('pull', value, limit)) return false;
      let inside = 0;
      for (let y = box.y; y < box.y + box.height; y++)
        for (let x = box.x; x < box.x + box.width; x++)
          if (repaired.has(y * picture.width + x)) inside++;
      return 2 * inside >= box.width * box.height;
    })
    .map(({ value, box }) => ({ kind: 'pull', value, limit, box }));
}
