import { mkdir, rm } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { printsOn, quadTurn, uprightPrint } from '@tersum/core';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { BadUsage, needed, readArguments } from './usage.js';

const OPTIONS = {
  'out-dir': { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

/** `tersum split`: every print on a scanner's bed as a picture of its own, straightened, in reading order. */
export async function splitCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const folder = needed(values['out-dir'], 'out-dir');
  const meter = new Meter();
  const { raster: bed, ppi } = await meter.time('load', () => readPicture(input));
  const found = await meter.time('engine', () => printsOn(bed));
  if (!found.length) throw new BadUsage('no print stands out from the ground in this picture');
  const extension = /\.(png|tiff?|jpe?g|webp)$/i.test(input) ? extname(input) : '.png';
  await mkdir(folder, { recursive: true });
  const written: string[] = [];
  try {
    for (const [k, { quad }] of found.entries()) {
      const print = await meter.time('engine', () => uprightPrint(bed, quad));
      const path = join(folder, `print-${k + 1}${extension}`);
      written.push(path);
      await meter.time('save', () => writePicture(path, print, input, ppi));
    }
  } catch (error) {
    await Promise.all(written.map((path) => rm(path, { force: true })));
    throw error;
  }
  await writeReport(values.json, {
    command: 'split',
    quads: found.map((f) => f.quad),
    prints: found.map(({ quad, edges }) => ({ angle_ccw_deg: quadTurn(quad), edges_found: edges })),
    files: written,
    ...meter.report(),
  });
}
