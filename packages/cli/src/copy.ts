import type { DonorInput, DonorPlacement, Portion, Raster, Rect } from '@tersum/core';
import {
  clone,
  copyByPortions,
  crop,
  cropMask,
  frameOf,
  graft,
  grow,
  intersect,
  isEmpty,
  maskBox,
  paste,
  placementMap,
  resample,
  resampleReads,
  SCALE_LIMITS,
  softenMask,
} from '@tersum/core';
import { Meter, readMask, readPicture, writePicture, writeReport } from './files.js';
import { BadUsage, needed, numberOf, readArguments } from './usage.js';

const OPTIONS = {
  mask: { type: 'string' },
  out: { type: 'string' },
  donor: { type: 'string' },
  turn: { type: 'string' },
  mirror: { type: 'string' },
  scale: { type: 'string' },
  strength: { type: 'string' },
  softness: { type: 'string' },
  seed: { type: 'string' },
  threads: { type: 'string' },
  json: { type: 'string' },
} as const;

type Values = Partial<Record<keyof typeof OPTIONS, string>>;
type Copy = (input: DonorInput, strength: number) => Raster;

/** `tersum clone`: exact copy of a donor. */
export const cloneCommand = (args: string[]): Promise<void> => copyCommand('clone', clone, args);

/** `tersum graft`: the donor's texture with the surroundings' tone. */
export const graftCommand = (args: string[]): Promise<void> => copyCommand('graft', graft, args);

async function copyCommand(name: string, copy: Copy, args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const strength = numberOf(values.strength, 'strength', 0, 1, 1);
  const softness = numberOf(values.softness, 'softness', 0, 1, 0);
  const wanted = donorOf(values);
  const meter = new Meter();
  const { picture, mask, ppi } = await meter.time('load', async () => {
    const { raster, ppi } = await readPicture(input);
    return { picture: raster, mask: await readMask(needed(values.mask, 'mask'), raster), ppi };
  });
  const box = maskBox(mask, picture.width);
  const done = await meter.time('engine', () => {
    if (!box) return { result: picture, donors: [] };
    return wanted === 'auto'
      ? copyAuto(picture, mask, box, name === 'graft', values, softness, strength, copy)
      : {
          result: copyFrom(picture, mask, box, wanted, softness, strength, copy),
          donors: [{ box, donor: wanted }],
        };
  });
  await meter.time('save', () => writePicture(out, done.result, input, ppi));
  const report = { command: name, donors: done.donors, strength, softness };
  await writeReport(values.json, { ...report, ...meter.report() });
}

function donorOf(values: Values): DonorPlacement | 'auto' {
  const wanted = needed(values.donor, 'donor');
  const mirror = values.mirror ?? '';
  if (!['', 'x', 'y', 'xy'].includes(mirror))
    throw new BadUsage(`--mirror takes x or y, not '${mirror}'`);
  const [least, most] = [SCALE_LIMITS.least * 100, SCALE_LIMITS.most * 100];
  const turn = numberOf(values.turn, 'turn', -360, 360, 0);
  const scale = numberOf(values.scale, 'scale', least, most, 100) / 100;
  if (wanted === 'auto') return 'auto';
  const match = /^(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?)$/.exec(wanted);
  if (!match) throw new BadUsage(`--donor takes DX,DY or auto, not '${wanted}'`);
  return {
    dx: Number(match[1]),
    dy: Number(match[2]),
    turn,
    scale,
    mirrorX: mirror.includes('x'),
    mirrorY: mirror.includes('y'),
  };
}

interface Copied {
  readonly result: Raster;
  readonly donors: readonly (Portion | { box: Rect; donor: DonorPlacement })[];
}

/** Every part of the mask with the donor that suits it best. */
function copyAuto(
  picture: Raster,
  mask: Uint8Array,
  box: Rect,
  matched: boolean,
  values: Values,
  softness: number,
  strength: number,
  copy: Copy,
): Copied {
  const scale = numberOf(values.scale, 'scale', 25, 400, 100) / 100;
  const options = {
    matched,
    // A clone is an exact copy.
    expected: matched,
    turn: Math.abs(numberOf(values.turn, 'turn', -360, 360, 0)),
    mirror: values.mirror !== undefined,
    scale: [Math.min(1, scale), Math.max(1, scale)] as const,
  };
  const soft = softness > 0 ? softenMask(mask, picture.width, picture.height, softness) : null;
  const mended = copyByPortions(picture, mask, (input) => copy(input, 1), options);
  if (mended.portions.every((p) => !p.donor))
    throw new BadUsage('no donor was found near the mask; name one with --donor DX,DY');
  const coverage = soft ?? Float32Array.from(mask);
  const part = copyCoverage(picture, mended.picture, coverage, box, strength);
  return { result: paste(picture, part, box), donors: mended.portions };
}

function copyCoverage(
  picture: Raster,
  mended: Raster,
  coverage: Float32Array,
  box: Rect,
  strength: number,
): Raster {
  const cut = new Float32Array(box.width * box.height);
  for (let y = 0; y < box.height; y++) {
    const from = (box.y + y) * picture.width + box.x;
    cut.set(coverage.subarray(from, from + box.width), y * box.width);
  }
  const valid = new Uint8Array(cut.length).fill(1);
  return clone(
    { below: crop(picture, box), donor: crop(mended, box), valid, coverage: cut },
    strength,
  );
}

/** The whole mask from one named place. */
function copyFrom(
  picture: Raster,
  mask: Uint8Array,
  box: Rect,
  donor: DonorPlacement,
  softness: number,
  strength: number,
  copy: Copy,
): Raster {
  const frame = frameOf(picture);
  const window = intersect(grow(box, 1), frame);
  const middle = [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2] as const;
  const map = placementMap(donor, middle);
  const reads = resampleReads(map, window, frame);
  if (isEmpty(reads)) throw new BadUsage('the donor lies outside the picture');
  const { raster, valid } = resample(crop(picture, reads), reads, map, window, frame);
  const site = cropMask(mask, picture.width, window);
  if (isOwnContent(donor)) for (let p = 0; p < valid.length; p++) if (!site[p]) valid[p] = 0;
  const coverage = softenMask(site, window.width, window.height, softness);
  const parts = { below: crop(picture, window), donor: raster, valid, coverage };
  return paste(picture, copy(parts, strength), window);
}

/** What was pasted there is to be brought into its surroundings' tone. */
function isOwnContent({ dx, dy, turn, mirrorX, mirrorY, scale }: DonorPlacement): boolean {
  return dx === 0 && dy === 0 && !turn && !mirrorX && !mirrorY && scale === 1;
}
