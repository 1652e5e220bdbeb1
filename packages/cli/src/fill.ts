import type { Raster, Rect } from '@tersum/core';
import {
  crop,
  deepestOf,
  fill,
  frameOf,
  grow,
  intersect,
  NothingToCopy,
  searchFill,
  searchMargin,
  maskBox,
} from '@tersum/core';
import { Meter, readMask, readPicture, writePicture, writeReport } from './files.js';
import { cropMask, pasteInto } from './masks.js';
import { BadUsage, needed, numberOf, readArguments } from './usage.js';

const OPTIONS = {
  mask: { type: 'string' },
  out: { type: 'string' },
  donors: { type: 'string' },
  avoid: { type: 'string' },
  adapt: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

/** `tersum fill`: fills a mask from what stands around it. */
export async function fillCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const seed = Math.round(numberOf(values.seed, 'seed', 0, 0x7fffffff, 1));
  const adapt = numberOf(values.adapt, 'adapt', 0, 1, 1);
  const meter = new Meter();
  const { picture, hole, banned, ppi } = await meter.time('load', async () => {
    const { raster, ppi } = await readPicture(input);
    const hole = await readMask(needed(values.mask, 'mask'), raster);
    const banned = values.avoid
      ? await readMask(values.avoid, raster)
      : new Uint8Array(hole.length);
    if (values.donors) {
      const donors = await readMask(values.donors, raster);
      donors.forEach((allowed, p) => allowed || (banned[p] = 1));
    }
    return { picture: raster, hole, banned, ppi };
  });
  const box = maskBox(hole, picture.width);
  const filled = await meter.time('engine', () =>
    box ? fillMask(picture, hole, banned, box, seed, adapt) : { result: picture, window: null },
  );
  await meter.time('save', () => writePicture(out, filled.result, input, ppi));
  await writeReport(values.json, {
    command: 'fill',
    seed,
    adapt,
    window: filled.window,
    ...meter.report(),
  });
}

function fillMask(
  picture: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  box: Rect,
  seed: number,
  adapt: number,
) {
  const small = cropMask(hole, picture.width, box);
  const window = intersect(
    grow(box, searchMargin(deepestOf(small, box.width, box.height))),
    frameOf(picture),
  );
  const below = crop(picture, window);
  const mask = cropMask(hole, picture.width, window);
  try {
    const map = searchFill(below, window, mask, cropMask(banned, picture.width, window), { seed });
    const done = fill({ below, origin: window, map, coverage: Float32Array.from(mask) }, 1, {
      adapt,
    });
    return { result: pasteInto(picture, done, window), window };
  } catch (error) {
    if (error instanceof NothingToCopy) throw new BadUsage('the mask leaves nothing to copy from');
    throw error;
  }
}
