import { encodeJpeg } from '@tersum/codec';
import type { Crew, Point, Raster, Sides, Stretched, Task, WidenTrial } from '@tersum/core';
import {
  CannotStretch,
  convertRaster,
  frameOf,
  judgeWidened,
  portionOf,
  sidesFilled,
  stretched,
  subjectAs,
} from '@tersum/core';
import type { WidenAnswer } from '@tersum/document';
import { compose, reducedPart } from '@tersum/document';
import type { TaskOf } from './tasks.js';

/** A way that was tried, and what a stretch came to. */
type Tried = WidenTrial & { readonly stretch: WidenAnswer['ways'][number]['stretch'] };

/** Longest side of the canvas on which ways are compared, px. */
const TRIED = 560;

/**
 * Tries a wider canvas both ways, the better one first: filled on a small copy, stretched in full, since a narrow strip of
 * background may be all there is, and made small afterwards. A stretch that cannot be done is left out.
 */
export async function widenBothWays(
  { original, patches, sides, subject }: TaskOf<'widen'>,
  crew: Crew,
  watch: Task,
): Promise<WidenAnswer> {
  const whole = compose(original, patches, frameOf(original));
  const { left, right, top, bottom } = sides;
  const longest = Math.max(whole.width + left + right, whole.height + top + bottom);
  const factor = Math.max(1, Math.round(longest / TRIED));
  const small = reduced(whole, factor);
  const scaled = Object.fromEntries(
    Object.entries(sides).map(([side, px]) => [side, Math.round(Number(px) / factor)]),
  ) as unknown as Sides;
  const filling = portionOf(watch, 0, 0.6);
  const marked = subject && subject.map(([x, y]): Point => [x / factor, y / factor]);
  const filled = sidesFilled(small, scaled, subjectAs(small, marked), { crew }, filling);
  const trials: Tried[] = [{ ...judgeWidened('fill', filled, scaled), stretch: null }];
  const longer = longerOf(whole, sides, subject, portionOf(watch, 0.6, 1));
  if (longer) {
    const { picture, ...stretch } = longer;
    trials.push({ ...judgeWidened('stretch', reduced(picture, factor), scaled), stretch });
  }
  trials.sort((one, other) => one.score - other.score);
  return { ways: await Promise.all(trials.map(told)) };
}

function longerOf(
  whole: Raster,
  sides: Sides,
  subject: readonly Point[] | null,
  task: Task,
): Stretched | null {
  const kept = subjectAs(whole, subject) ?? new Uint8Array(whole.width * whole.height);
  try {
    return stretched(whole, sides, kept, task);
  } catch (error) {
    if (error instanceof CannotStretch) return null;
    throw error;
  }
}

async function told({ picture, tells, ...trial }: Tried): Promise<WidenAnswer['ways'][number]> {
  const file = await encodeJpeg(picture, picture);
  return { ...trial, tells: [...tells], picture: file.toString('base64') };
}

function reduced(picture: Raster, factor: number): Raster {
  const part = reducedPart(picture, [], frameOf(picture), factor);
  return convertRaster(part, part.channels, 'u8');
}
