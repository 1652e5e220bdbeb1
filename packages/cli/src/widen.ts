import type { Raster, Sides } from '@tersum/core';
import {
  CannotStretch,
  canvasOf,
  createRaster,
  depthOf,
  maskBox,
  paste,
  stretched,
  subjectOf,
} from '@tersum/core';
import { ThreadCrew } from '@tersum/threads';
import { Meter, readMask, readPicture, writePicture, writeReport } from './files.js';
import { fillMask } from './fill.js';
import { BadUsage, needed, numberOf, readArguments, threadsOf } from './usage.js';

const OPTIONS = {
  left: { type: 'string' },
  right: { type: 'string' },
  top: { type: 'string' },
  bottom: { type: 'string' },
  how: { type: 'string' },
  protect: { type: 'string' },
  out: { type: 'string' },
  threads: { type: 'string' },
  seed: { type: 'string' },
  json: { type: 'string' },
} as const;
const MOST = 20000;

/** `tersum widen`: more background on any side, filled or stretched. */
export async function widenCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const side = (name: keyof Sides): number => Math.round(numberOf(values[name], name, 0, MOST, 0));
  const sides = {
    left: side('left'),
    right: side('right'),
    top: side('top'),
    bottom: side('bottom'),
  };
  const how = values.how ?? 'fill';
  if (how !== 'fill' && how !== 'stretch') throw new BadUsage('--how is fill or stretch');
  const seed = Math.round(numberOf(values.seed, 'seed', 0, 0x7fffffff, 1));
  const crew = new ThreadCrew(threadsOf(values.threads));
  const meter = new Meter();
  try {
    const { picture, given, ppi } = await meter.time('load', async () => {
      const { raster, ppi } = await readPicture(input);
      return {
        picture: raster,
        given: values.protect ? await readMask(values.protect, raster) : null,
        ppi,
      };
    });
    const done = await meter.time('engine', () => {
      const subject = given ?? subjectOf(picture);
      return how === 'fill'
        ? { picture: filled(picture, sides, subject, seed, crew), subject, more: {} }
        : { ...stretchedBy(picture, sides, subject), subject };
    });
    await meter.time('save', () => writePicture(out, done.picture, input, ppi));
    const canvas = canvasOf(picture.width, picture.height, sides);
    await writeReport(values.json, {
      command: 'widen',
      how,
      size: [canvas.width, canvas.height],
      sides,
      invented: canvas.invented,
      subject: done.subject ? (given ? 'given' : 'found') : 'none',
      subject_bbox: done.subject && boxOf(done.subject, picture.width),
      ...done.more,
      ...meter.report(),
    });
  } finally {
    await crew.close();
  }
}

function boxOf(mask: Uint8Array, width: number): number[] | null {
  const box = maskBox(mask, width);
  return box && [box.x, box.y, box.width, box.height];
}

/** The new sides filled from the background; the input's pixels stand unchanged, and the subject is not copied. */
function filled(
  picture: Raster,
  sides: Sides,
  subject: Uint8Array | null,
  seed: number,
  crew: ThreadCrew,
): Raster {
  const { width, height } = canvasOf(picture.width, picture.height, sides);
  const canvas = createRaster(width, height, picture.channels, depthOf(picture.data));
  const place = { x: sides.left, y: sides.top, width: picture.width, height: picture.height };
  const below = paste(canvas, picture, place);
  const hole = new Uint8Array(width * height).fill(1);
  const banned = new Uint8Array(width * height);
  for (let y = 0; y < picture.height; y++)
    for (let x = 0; x < picture.width; x++) {
      const p = (y + sides.top) * width + x + sides.left;
      hole[p] = 0;
      banned[p] = subject?.[y * picture.width + x] ?? 0;
    }
  const box = maskBox(hole, width);
  if (!box) return below;
  const asked = { seed, adapt: 1, variants: 1, turn: 0, mirror: false, scale: [1, 1] as const };
  const { window, variants } = fillMask(below, hole, banned, box, asked, crew);
  return paste(below, variants[0]!.part, window);
}

function stretchedBy(picture: Raster, sides: Sides, subject: Uint8Array | null) {
  try {
    const kept = subject ?? new Uint8Array(picture.width * picture.height);
    const { picture: wide, factors, splices } = stretched(picture, sides, kept);
    return { picture: wide, more: { stretch: factors, splices } };
  } catch (error) {
    if (error instanceof CannotStretch) throw new BadUsage(error.message);
    throw error;
  }
}
