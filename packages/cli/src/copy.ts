import type { Raster, Rect } from '@tersum/core';
import {
  clone,
  createRaster,
  crop,
  depthOf,
  findDonor,
  frameOf,
  graft,
  grow,
  intersect,
  shift,
  softenMask,
  maskBox,
} from '@tersum/core';
import { Meter, readMask, readPicture, writePicture, writeReport } from './files.js';
import { cropMask, pasteInto } from './masks.js';
import { BadUsage, needed, numberOf, readArguments } from './usage.js';

const OPTIONS = {
  mask: { type: 'string' },
  out: { type: 'string' },
  donor: { type: 'string' },
  strength: { type: 'string' },
  softness: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;

type Copy = typeof clone;

/** `tersum clone`: exact copy of a donor. */
export const cloneCommand = (args: string[]): Promise<void> => copyCommand('clone', clone, args);

/** `tersum graft`: the donor's texture with the surroundings' tone. */
export const graftCommand = (args: string[]): Promise<void> => copyCommand('graft', graft, args);

async function copyCommand(name: string, copy: Copy, args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const strength = numberOf(values.strength, 'strength', 0, 1, 1);
  const softness = numberOf(values.softness, 'softness', 0, 1, 0);
  const meter = new Meter();
  const { picture, mask, ppi } = await meter.time('load', async () => {
    const { raster, ppi } = await readPicture(input);
    return { picture: raster, mask: await readMask(needed(values.mask, 'mask'), raster), ppi };
  });
  const box = maskBox(mask, picture.width);
  const { result, donor } = await meter.time('engine', () => {
    if (!box) return { result: picture, donor: null };
    const donor = donorOf(values.donor, picture, mask, box);
    return { result: copyMask(picture, mask, box, donor, softness, strength, copy), donor };
  });
  await meter.time('save', () => writePicture(out, result, input, ppi));
  await writeReport(values.json, { command: name, donor, strength, softness, ...meter.report() });
}

interface Way {
  readonly dx: number;
  readonly dy: number;
}

function donorOf(text: string | undefined, picture: Raster, mask: Uint8Array, box: Rect): Way {
  const wanted = needed(text, 'donor');
  const match = /^(-?\d+),(-?\d+)$/.exec(wanted);
  if (match) return { dx: Number(match[1]), dy: Number(match[2]) };
  if (wanted !== 'auto')
    throw new BadUsage(`--donor takes DX,DY in whole pixels or auto, not '${wanted}'`);
  const reach = Math.round(Math.min(240, Math.max(48, 2 * Math.min(box.width, box.height))));
  const window = intersect(grow(box, reach + 8), frameOf(picture));
  const site = cropMask(mask, picture.width, window);
  const none = new Uint8Array(site.length);
  const found = findDonor(
    crop(picture, window),
    site,
    none,
    shift(box, -window.x, -window.y),
    reach,
  );
  if (!found) throw new BadUsage('no donor was found near the mask; name one with --donor DX,DY');
  return { dx: found.dx, dy: found.dy };
}

function copyMask(
  picture: Raster,
  mask: Uint8Array,
  box: Rect,
  { dx, dy }: Way,
  softness: number,
  strength: number,
  copy: Copy,
): Raster {
  const frame = frameOf(picture);
  const window = intersect(grow(box, 1), frame);
  const below = crop(picture, window);
  const wanted = shift(window, dx, dy);
  const there = intersect(wanted, frame);
  if (!there.width) throw new BadUsage('the donor lies outside the picture');
  const donor = createRaster(window.width, window.height, picture.channels, depthOf(picture.data));
  const valid = new Uint8Array(window.width * window.height);
  const at = shift(there, -wanted.x, -wanted.y);
  for (let y = 0; y < at.height; y++) {
    const p = (at.y + y) * window.width + at.x;
    valid.fill(1, p, p + at.width);
  }
  const placed = pasteInto(donor, crop(picture, there), at);
  const site = cropMask(mask, picture.width, window);
  const coverage = softenMask(site, window.width, window.height, softness);
  return pasteInto(picture, copy({ below, donor: placed, valid, coverage }, strength), window);
}
