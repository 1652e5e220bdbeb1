import type { Raster, Sides } from '@tersum/core';
import {
  CannotStretch,
  canvasOf,
  maskBox,
  NothingToCopy,
  stretched,
  subjectOf,
} from '@tersum/core';
import { ThreadCrew } from '@tersum/threads';
import { Meter, readMask, readPicture, readToFill, writePicture, writeReport } from './files.js';
import { sidesGrained } from './sides.js';
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

/** `tersum widen`: more background on any side, filled or stretched; less where a stretch is asked for below 0. */
export async function widenCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const how = values.how ?? 'fill';
  if (how !== 'fill' && how !== 'stretch') throw new BadUsage('--how is fill or stretch');
  const least = how === 'stretch' ? -MOST : 0;
  const side = (name: keyof Sides): number =>
    Math.round(numberOf(values[name], name, least, MOST, 0));
  const sides = {
    left: side('left'),
    right: side('right'),
    top: side('top'),
    bottom: side('bottom'),
  };
  const seed = Math.round(numberOf(values.seed, 'seed', 0, 0x7fffffff, 1));
  const crew = new ThreadCrew(threadsOf(values.threads));
  const meter = new Meter();
  try {
    const load = async () => {
      const { raster, ppi } = await readPicture(input);
      return {
        picture: raster,
        given: values.protect ? await readMask(values.protect, raster) : null,
        ppi,
      };
    };
    const { picture, given, ppi } = await meter.time('load', () => readToFill(load));
    const done = await meter.time('engine', () => {
      const subject = given ?? subjectOf(picture);
      return how === 'fill'
        ? { picture: sidesGrained(picture, sides, subject, { seed, crew }), subject, more: {} }
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
  } catch (error) {
    if (error instanceof NothingToCopy)
      throw new BadUsage('what is protected leaves nothing to copy from');
    throw error;
  } finally {
    await crew.close();
  }
}

function boxOf(mask: Uint8Array, width: number): number[] | null {
  const box = maskBox(mask, width);
  return box && [box.x, box.y, box.width, box.height];
}

function stretchedBy(picture: Raster, sides: Sides, subject: Uint8Array | null) {
  try {
    const kept = subject ?? new Uint8Array(picture.width * picture.height);
    const { picture: wide, factors, splices, broken } = stretched(picture, sides, kept);
    return { picture: wide, more: { stretch: factors, splices, broken_lines: broken } };
  } catch (error) {
    if (error instanceof CannotStretch) throw new BadUsage(error.message);
    throw error;
  }
}
