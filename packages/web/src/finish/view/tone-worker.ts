import type { Quad, Raster, ToneStep } from '@tersum/core';
import {
  convertRaster,
  crop,
  depthOf,
  frameOf,
  histogramOf,
  intersect,
  needsColour,
  throughMap,
  throughTones,
} from '@tersum/core';
import { expose, transfer } from 'comlink';

/** What is drawn. */
export interface Painted {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** What the tones of what was drawn are like. */
export interface Tones {
  /** Counts of 128 ranges, one list a channel. */
  readonly histogram: readonly (readonly number[])[];
  /** Share of the samples that are wholly black and white. */
  readonly clipped: { readonly black: number; readonly white: number };
}

/** How the region in hand is to be painted. */
export interface PaintWish {
  readonly steps: readonly ToneStep[];
  /** Corners of the frame in the region's own px, and the size it gets; null for no frame. */
  readonly frame: { readonly quad: Quad; readonly width: number; readonly height: number } | null;
  /** Marks what is wholly black or white. */
  readonly clipping: boolean;
}

export interface RegionPlace {
  readonly width: number;
  readonly height: number;
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

const BINS = 128;
/** px round a place that are read with it. */
const AROUND = 2;
/** Codes from which on a sample counts as clipped, 0..1. */
const ENDS = { black: 0.5 / 255, white: 254.5 / 255 } as const;

let region: Raster | null = null;
let colour: Raster | null = null;
let place: RegionPlace | null = null;
/** Samples that every painting uses anew: fresh ones cost more time than the tones do. */
let room: Float32Array<ArrayBuffer> | undefined;
/** What was painted last. */
let last: Raster | null = null;

const worker = {
  /** Takes the part of the picture that is shown from now on. */
  load(part: Raster, at: RegionPlace): void {
    region = part;
    colour = null;
    place = at;
  },

  paint({ steps, frame, clipping }: PaintWish): Painted | null {
    if (!region || !place) return null;
    if (region.channels === 1 && needsColour(steps))
      colour ??= convertRaster(region, 3, depthOf(region.data));
    const source = region.channels === 1 && needsColour(steps) ? colour! : region;
    const toned = throughTones(source, steps, place, room);
    room = toned.data as Float32Array<ArrayBuffer>;
    const shown = frame ? throughMap(toned, frame.quad, frame.width, frame.height) : toned;
    last = shown;
    const painted = rgbaOf(shown, clipping);
    return transfer(painted, [painted.rgba.buffer]);
  },

  /** The tones of what was painted last: asked for by itself, since the picture should not wait for them. */
  tones(): Tones | null {
    return last && tonesOf(last);
  },

  /** Mean of a few px round a place of the region, 0..1, as it is after some steps. */
  read(x: number, y: number, steps: readonly ToneStep[]): number[] {
    if (!region || !place) return [];
    const rect = intersect(
      { x: x - AROUND, y: y - AROUND, width: 2 * AROUND + 1, height: 2 * AROUND + 1 },
      frameOf(region),
    );
    const at = { ...place, x: place.x + rect.x * place.scale, y: place.y + rect.y * place.scale };
    const { data, channels } = throughSteps(crop(region, rect), steps, at);
    const sums = new Array<number>(channels).fill(0);
    for (let i = 0; i < data.length; i++) sums[i % channels]! += data[i]!;
    return sums.map((sum) => (sum * channels) / data.length);
  },
};

function throughSteps(part: Raster, steps: readonly ToneStep[], at: RegionPlace): Raster {
  const inColour = part.channels === 1 && needsColour(steps);
  return throughTones(inColour ? convertRaster(part, 3, depthOf(part.data)) : part, steps, at);
}

export type ToneWorker = typeof worker;
expose(worker);

function rgbaOf({ width, height, channels, data }: Raster, clipping: boolean): Painted {
  const pixels = new Uint32Array(width * height);
  const [green, blue] = channels === 3 ? [1, 2] : [0, 0];
  for (let p = 0, i = 0; p < pixels.length; p++, i += channels)
    pixels[p] =
      OPAQUE | (codeOf(data[i + blue]!) << 16) | (codeOf(data[i + green]!) << 8) | codeOf(data[i]!);
  const rgba = new Uint8ClampedArray(pixels.buffer);
  if (clipping) markClipped(rgba, width, data, channels);
  return { width, height, rgba };
}

/** Alpha of a pixel as its four bytes lie in memory (little-endian, as everywhere browsers run). */
const OPAQUE = 0xff000000;

function codeOf(v: number): number {
  return v <= 0 ? 0 : v >= 1 ? 255 : (v * 255 + 0.5) | 0;
}

/** Hatches what is wholly black or white, so that the mark does not depend on colour alone. */
function markClipped(
  rgba: Uint8ClampedArray,
  width: number,
  data: Raster['data'],
  channels: number,
): void {
  for (let i = 0, o = 0; o < rgba.length; i += channels, o += 4) {
    const r = data[i]!;
    const g = channels === 3 ? data[i + 1]! : r;
    const b = channels === 3 ? data[i + 2]! : r;
    const white = Math.max(r, g, b) >= ENDS.white;
    if (!white && Math.min(r, g, b) > ENDS.black) continue;
    const p = o >> 2;
    const stripe = ((p % width) + Math.floor(p / width)) % 6 < 3;
    rgba.set(
      white === stripe ? [184, 58, 34, 255] : white ? [255, 255, 255, 255] : [0, 0, 0, 255],
      o,
    );
  }
}

function tonesOf({ channels, data }: Raster): Tones {
  const fine = Array.from({ length: channels }, (_, c) => histogramOf(data, 1020, c, channels));
  const ends = (pick: (counts: Uint32Array) => number): number =>
    fine.reduce((sum, h) => sum + pick(h.counts) / h.total, 0) / channels;
  return {
    histogram: fine.map(({ counts }) => {
      const bins = new Array<number>(BINS).fill(0);
      counts.forEach((n, k) => (bins[Math.floor((k * BINS) / counts.length)]! += n));
      return bins;
    }),
    clipped: {
      black: ends((c) => c[0]! + c[1]!),
      white: ends((c) => c[c.length - 1]! + c[c.length - 2]!),
    },
  };
}
