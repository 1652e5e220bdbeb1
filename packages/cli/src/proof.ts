import { changedBetween, FINDING_KINDS, leftIn, sitesOf, tellsOf } from '@tersum/core';
import { Meter, readMask, readPicture, writeReport } from './files.js';
import { surveyed } from './survey.js';
import { BadUsage, needed, readMany, threadsOf } from './usage.js';

const OPTIONS = {
  mask: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

/** `tersum proof`: what gives the repairs between two pictures away. @param script what a thread of the survey runs */
export async function proofCommand(args: string[], script: URL | null = null): Promise<void> {
  const { inputs, values } = readMany(args, OPTIONS);
  const [first, second, ...more] = inputs;
  if (!first || !second || more.length)
    throw new BadUsage('name two pictures, as received and as repaired');
  const to = needed(values.json, 'json');
  const threads = threadsOf(values.threads);
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
      const findings = sites.length
        ? await surveyed(after, { kinds: FINDING_KINDS, sensitivity: 0.5 }, threads, script)
        : [];
      return { sites, tells: [...tellsOf(after, sites), ...leftIn(findings, sites, after.width)] };
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
