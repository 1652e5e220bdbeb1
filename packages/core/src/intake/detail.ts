import { greyOf } from '../raster/grey.js';
import type { Raster } from '../raster/raster.js';

/** What the pixels of a scan really hold. */
export interface DetailFacts {
  /** Share of the highest frequency the pixels could carry up to which there is something worth the name, 0..1. */
  readonly reach: number;
  /** Finest quarter of the frequencies beside the coarse ones, power times frequency squared; natural pictures keep over 0.1. */
  readonly fine: number;
  /** Whether more pixels were made of it than it holds: its density was interpolated. */
  readonly interpolated: boolean;
}

/** Pixels of a line that is analysed; frequencies are its harmonics. */
const LENGTH = 128;
const HALF = LENGTH / 2;
/** Lines that are analysed in each direction, the liveliest of a grid of so many. */
const LINES = 260;
const TRIED = 2400;
/** Power, evened for the usual fall with the square of the frequency, under which nothing is held. */
const NOTHING = 0.03;
/** Of the finest quarter, under which pixels were made of too little: enlarging twice leaves less, soft lenses more. */
const MADE_UP = 0.025;

/**
 * Up to where a picture's spectrum holds anything: what was enlarged ends at a share of the highest frequency, while real
 * detail and grain go on. Power spectra of the liveliest lines in both directions under a Hann window, averaged (Welch
 * 1967), evened for the fall of natural pictures with the square of the frequency (Field 1987).
 */
export function detailReach(picture: Raster): DetailFacts {
  const power = spectrumOf(picture);
  if (!power) return { reach: 1, fine: 1, interpolated: false };
  const even = power.map((v, f) => v * f * f);
  const level = mean(even, 0.08, 0.25);
  let reach = HALF;
  while (reach > 1 && (even[reach]! + even[reach - 1]!) / 2 < NOTHING * level) reach--;
  const fine = mean(even, 0.75, 1) / level;
  return { reach: reach / HALF, fine, interpolated: fine < MADE_UP };
}

/** Mean power at harmonics 0..LENGTH / 2; null when the picture is too small or empty. */
function spectrumOf(picture: Raster): Float64Array | null {
  const { width, height } = picture;
  if (width < LENGTH || height < LENGTH) return null;
  const grey = greyOf(picture);
  const lines: { readonly from: number; readonly step: number; readonly life: number }[] = [];
  const side = Math.max(1, Math.round(Math.sqrt((width * height) / TRIED)));
  for (let y = side >> 1; y < height; y += side)
    for (let x = side >> 1; x < width; x += side) {
      if (x + LENGTH <= width) lines.push(lineAt(grey, y * width + x, 1));
      if (y + LENGTH <= height) lines.push(lineAt(grey, y * width + x, width));
    }
  lines.sort((a, b) => b.life - a.life);
  const power = new Float64Array(HALF + 1);
  const real = new Float64Array(LENGTH);
  for (const { from, step } of lines.slice(0, 2 * LINES)) {
    let middle = 0;
    for (let k = 0; k < LENGTH; k++) middle += grey[from + k * step]! / LENGTH;
    for (let k = 0; k < LENGTH; k++) real[k] = WINDOW[k]! * (grey[from + k * step]! - middle);
    for (let f = 1; f <= HALF; f++) {
      let [re, im] = [0, 0];
      for (let k = 0; k < LENGTH; k++) {
        const turn = (f * k) % LENGTH;
        re += real[k]! * COS[turn]!;
        im -= real[k]! * COS[(turn + LENGTH - HALF / 2) % LENGTH]!;
      }
      power[f]! += re * re + im * im;
    }
  }
  return lines.length && power[1]! > 0 ? power : null;
}

const COS = Float64Array.from({ length: LENGTH }, (_, k) => Math.cos((2 * Math.PI * k) / LENGTH));
const WINDOW = COS.map((c) => 0.5 - 0.5 * c);

function lineAt(grey: Float32Array, from: number, step: number) {
  let life = 0;
  for (let k = 1; k < LENGTH; k++) {
    const d = grey[from + k * step]! - grey[from + (k - 1) * step]!;
    life += d * d;
  }
  return { from, step, life };
}

function mean(power: Float64Array, from: number, to: number): number {
  const [a, b] = [Math.max(1, Math.round(from * HALF)), Math.min(HALF, Math.round(to * HALF))];
  let sum = 0;
  for (let f = a; f <= b; f++) sum += power[f]!;
  return sum / Math.max(1, b - a + 1);
}
