import { layerAt } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';

/** A way to make grey of colour. */
export const GREY_WAYS = ['red', 'green', 'blue', 'luma', 'mix'] as const;
export type GreyWay = (typeof GREY_WAYS)[number];

/** What one way of making grey shows of a picture. */
export interface GreyFacts {
  readonly way: GreyWay;
  /** Shares of red, green and blue. */
  readonly weights: readonly [number, number, number];
  /** Codes between the darkest and the lightest hundredth. */
  readonly contrast: number;
  /** Standard deviation of the noise, codes. */
  readonly noise: number;
  /** Spots and scratches that stand out, per thousand pixels. */
  readonly damage: number;
  /** Contrast over noise and damage: what is compared. */
  readonly clearness: number;
}

/** The ways side by side, and the one to go on with. */
export interface GreyChoice {
  readonly ways: readonly GreyFacts[];
  readonly best: GreyWay;
  readonly reason: string;
}

/** Longest side that is looked at, px. */
const LONGEST = 1400;
/** How many deviations of the noise a spot stands out by. */
const STANDS_OUT = 6;
/** How much clearer another way must be than plain luma before it is worth leaving it. */
const WORTH = 1.08;

/**
 * Measures the channels of a print, since yellowed or faded ones are often clear in one channel and nearly empty in another
 * (common practice). The mix weighs each channel by its contrast over the square of its noise, which is what gives most
 * contrast over noise when the channels' noise is their own (matched weights).
 * @returns null for a grey picture
 */
export function greyChoice(picture: Raster): GreyChoice | null {
  const level = Math.max(
    0,
    Math.ceil(Math.log2(Math.max(picture.width, picture.height) / LONGEST)),
  );
  const { colours } = layerAt(picture, level);
  if (colours.length < 3) return null;
  const single = colours.map((plane) => measured(plane));
  const raw = single.map((s) => s.contrast / (s.noise * s.noise + 0.25) / (1 + s.damage));
  const sum = raw.reduce((a, b) => a + b, 0);
  const mix = raw.map((v) => Math.round((100 * v) / sum) / 100) as [number, number, number];
  const weights: Record<GreyWay, readonly [number, number, number]> = {
    red: [1, 0, 0],
    green: [0, 1, 0],
    blue: [0, 0, 1],
    luma: [0.2126, 0.7152, 0.0722],
    mix,
  };
  const ways = GREY_WAYS.map((way): GreyFacts => {
    const facts = measured(mixed(colours, weights[way]));
    const clearness = facts.contrast / (facts.noise + 0.5) / (1 + 0.2 * facts.damage);
    return { way, weights: weights[way], ...facts, clearness };
  });
  const top = ways.reduce((a, b) => (b.clearness > a.clearness ? b : a));
  const luma = ways.find((w) => w.way === 'luma')!;
  const best = top.clearness > WORTH * luma.clearness ? top : luma;
  return { ways, best: best.way, reason: reasonFor(best, luma) };
}

function reasonFor(best: GreyFacts, luma: GreyFacts): string {
  if (best === luma) return 'No channel is clearly better than the plain grey of all three.';
  const parts: string[] = [];
  const more = best.contrast / Math.max(1, luma.contrast);
  if (more > 1.04) parts.push(`${Math.round(100 * (more - 1))} % more contrast`);
  if (best.noise < 0.96 * luma.noise)
    parts.push(`${Math.round(100 * (1 - best.noise / luma.noise))} % less noise`);
  if (best.damage < 0.9 * luma.damage)
    parts.push(`${Math.round(100 * (1 - best.damage / luma.damage))} % fewer spots that show`);
  return `Against the plain grey: ${parts.length ? parts.join(', ') : 'the best of contrast over noise'}.`;
}

function mixed(colours: readonly Plane[], weights: readonly number[]): Plane {
  const { width, height } = colours[0]!;
  const values = new Float32Array(width * height);
  colours.forEach((plane, c) => {
    const w = weights[c]!;
    if (w) for (let p = 0; p < values.length; p++) values[p]! += w * plane.values[p]!;
  });
  return { width, height, values };
}

function measured(plane: Plane): { contrast: number; noise: number; damage: number } {
  const { width, height, values } = plane;
  const counts = new Float64Array(256);
  for (const v of values) counts[Math.max(0, Math.min(255, Math.round(v)))]!++;
  const at = (share: number): number => {
    let sum = 0;
    for (let k = 0; k < 256; k++) if ((sum += counts[k]!) >= share * values.length) return k;
    return 255;
  };
  // Residue of a surface without slope or bend (Immerkaer, "Fast Noise Variance Estimation", CVIU 64(2), 1996).
  const sizes: number[] = [];
  for (let y = 1; y < height - 1; y += 3)
    for (let x = 1; x < width - 1; x += 3) sizes.push(Math.abs(residue(plane, x, y)));
  // The median of a normal deviation's size is 0.6745 of the deviation; the mask's gain is 6.
  const noise = medianOf(sizes) / 0.6745 / 6;
  let spots = 0;
  const limit = STANDS_OUT * 6 * Math.max(noise, 0.5);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) if (Math.abs(residue(plane, x, y)) > limit) spots++;
  return {
    contrast: at(0.99) - at(0.01),
    noise,
    damage: (1000 * spots) / values.length,
  };
}

function residue({ width, values }: Plane, x: number, y: number): number {
  const p = y * width + x;
  return (
    values[p - width - 1]! +
    values[p - width + 1]! +
    values[p + width - 1]! +
    values[p + width + 1]! -
    2 * (values[p - 1]! + values[p + 1]! + values[p - width]! + values[p + width]!) +
    4 * values[p]!
  );
}
