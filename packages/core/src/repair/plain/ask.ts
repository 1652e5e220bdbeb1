import type { Raster } from '../../raster/raster.js';
import { colourChannels, whiteOf } from '../../raster/raster.js';
import type { Rect } from '../../raster/rect.js';
import { LANES } from '../../solve/levels.js';
import type { System } from '../../solve/system.js';
import { ENDS, RIM } from '../even-tones.js';
import type { Tones } from '../laid-copies.js';
import { pixelsOf } from './pixels-of.js';

/** Twin of ask in kernels/repair: the definition the kernel is held to. Lays down what is asked of every cell of a part, and what ties it to its copied tone and to the ring. */
export function askPlainly(
  below: Raster,
  site: Int32Array,
  room: Rect,
  { cells, own, right, below: downwards, ...system }: System,
  tie: number,
  asked: Tones,
): void {
  const steps = new Float64Array(colourChannels(below.channels));
  const held = new Float64Array(4);
  const pixels = pixelsOf(system, room, below.width);
  for (let cell = 1; cell < cells; cell++) {
    const p = pixels[cell]!;
    own[cell]! += tie;
    if (isCopiedWhole(site, below.width, p)) continue;
    own[cell]! += (RIM - 1) * askedSteps(below, site, p, steps, held);
    for (let c = 0; c < steps.length; c++) asked[LANES * cell + c] = steps[c]!;
    right[cell]! *= held[0]!;
    downwards[cell]! *= held[2]!;
  }
}

/**
 * What the picture's steps ask of a site pixel beyond the copied tones': the ring's values where it meets the ring, and towards
 * each neighbour the step its source shows; where the neighbour comes from elsewhere, the mean of both sources' steps.
 * @param site for every pixel the pixel it is copied from, -1 outside the site @param p a site pixel
 * @param asked becomes the sum of it, a value a channel
 * @param held becomes how firmly each neighbour is held to: right, left, below, above; 1 but across joints where things end
 * @returns how many of the neighbours are the ring's
 */
function askedSteps(
  picture: Raster,
  site: Int32Array,
  p: number,
  asked: Float64Array,
  held: Float64Array,
): number {
  const { width, height } = picture;
  const s = site[p]!;
  asked.fill(0);
  const x = p % width;
  let rim = 0;
  for (let side = 0; side < 4; side++) {
    const across = side === 0 ? 1 : side === 1 ? -1 : 0;
    const by = side === 2 ? width : side === 3 ? -width : across;
    const q = p + by;
    held[side] = 1;
    if (x + across < 0 || x + across >= width || q < 0 || q >= width * height) continue;
    const t = site[q]!;
    if (t < 0) {
      rim++;
      askRing(picture, s, beside(picture, site, s, across, by), q, asked);
    } else if (t !== s + by) {
      const mine = beside(picture, site, s, across, by);
      const theirs = beside(picture, site, t, -across, -by);
      held[side] = askJoint(picture, s, t, mine < 0 ? t : mine, theirs < 0 ? s : theirs, asked);
    }
  }
  return rim;
}

/** Whether all neighbours of a site pixel are copied along with it: then nothing is asked of it. */
function isCopiedWhole(site: Int32Array, width: number, p: number): boolean {
  const s = site[p]!;
  return (
    site[p + 1] === s + 1 &&
    site[p - width] === s - width &&
    site[p + width] === s + width &&
    s > 0 &&
    site[p - 1] === s - 1
  );
}

/** The pixel beside a source, -1 where there is none or it is the site's. */
function beside(
  { width, height }: Raster,
  site: Int32Array,
  s: number,
  across: number,
  by: number,
): number {
  const x = (s % width) + across;
  const q = s + by;
  return x < 0 || x >= width || q < 0 || q >= width * height || site[q]! >= 0 ? -1 : q;
}

/** Towards the ring: the donor's own step or that from the copied tone, whichever is smaller. */
function askRing(
  { channels, data }: Raster,
  s: number,
  mine: number,
  ring: number,
  asked: Float64Array,
): void {
  const [i, j, r] = [s * channels, mine * channels, ring * channels];
  if (mine < 0) {
    for (let c = 0; c < asked.length; c++) asked[c]! += RIM * (data[r + c]! - data[i + c]!);
    return;
  }
  let [own, raw] = [0, 0];
  for (let c = 0; c < asked.length; c++) {
    own += Math.abs(data[i + c]! - data[j + c]!);
    raw += Math.abs(data[i + c]! - data[r + c]!);
  }
  if (own > raw) return;
  for (let c = 0; c < asked.length; c++) asked[c]! += RIM * (data[r + c]! - data[j + c]!);
}

/**
 * Across a joint: the mean of what both sources show, less the step that was copied; the less of it, the less both agree,
 * lest the tone of the one thing run into the other.
 * @returns how firmly the joint is held together, 0..1
 */
function askJoint(
  { channels, data }: Raster,
  s: number,
  t: number,
  mine: number,
  theirs: number,
  asked: Float64Array,
): number {
  const [i, j, k, l] = [s * channels, t * channels, mine * channels, theirs * channels];
  const half = (c: number): number =>
    (data[j + c]! - data[k + c]! + data[l + c]! - data[i + c]!) / 2;
  let most = 0;
  for (let c = 0; c < asked.length; c++) most = Math.max(most, Math.abs(half(c)));
  const apart = (most / (ENDS * whiteOf(data))) ** 2;
  const held = 1 / (1 + apart * apart);
  for (let c = 0; c < asked.length; c++) asked[c]! += held * half(c);
  return held;
}
