import type { Plane } from '../../raster/plane.js';
import { strokePixels } from '../stroke-mask.js';
import type { FamilyLine } from './lines.js';
import { SPACING } from './lines.js';
import type { MeshWire, WireLook } from './wires.js';

/** Every so manieth column is looked at, px. */
const EVERY = 6;
/** Rise from border to border that is tried, as a share of the length, and its steps, px. */
const RISE = 0.06;
const RISE_STEP = 2;
/** Grey levels by which a wire stands out from both of its sides, and strays of tone that it is off by at most. */
const STANDS_OUT = 8;
const STRAYS = 3;
/** Shares of what is seen of it that must stand out: of the whole, and of each third. */
const WHOLE = 0.65;
const THIRD = 0.5;
/** Share of its length that must be seen beside the mesh. */
const SEEN = 0.3;
/** Wires are so many widths apart at least. */
const APART = 3;

/**
 * Where the wires run that a mesh hangs on: straight ones from border to border, level or plumb, of the mesh's tone and about its
 * breadth, brighter or darker than what stands behind. What the mesh covers says nothing.
 */
export function tensionLines(
  plane: Plane,
  wires: readonly MeshWire[],
  look: WireLook,
): FamilyLine[] {
  const covered = new Uint8Array(plane.width * plane.height);
  for (const { xs, ys, widths } of wires) {
    const line = { xs: [...xs], ys: [...ys], widths: [...widths] };
    for (const p of strokePixels(line, plane, 2)) covered[p] = 1;
  }
  return [false, true].flatMap((isPlumb) => linesAlong(plane, covered, look, isPlumb));
}

function linesAlong(
  plane: Plane,
  covered: Uint8Array,
  look: WireLook,
  isPlumb: boolean,
): FamilyLine[] {
  const [length, across] = isPlumb ? [plane.height, plane.width] : [plane.width, plane.height];
  const columns = Math.floor((length - 1) / EVERY) + 1;
  const signs = new Int8Array(columns * across);
  for (let c = 0; c < columns; c++)
    readColumn(plane, covered, look, isPlumb, c * EVERY, signs.subarray(c * across));
  const found: { from: number; rise: number; worth: number }[] = [];
  const most = RISE_STEP * Math.round((RISE * length) / RISE_STEP);
  for (let rise = -most; rise <= most; rise += RISE_STEP)
    for (let from = 0; from < across; from++) {
      const worth = worthAlong(signs, columns, across, from, rise);
      if (worth > 0) found.push({ from, rise, worth });
    }
  found.sort((a, b) => b.worth - a.worth || a.from - b.from || a.rise - b.rise);
  const kept: typeof found = [];
  for (const line of found) {
    const middle = line.from + line.rise / 2;
    if (kept.every((k) => Math.abs(k.from + k.rise / 2 - middle) > APART * look.width))
      kept.push(line);
  }
  return kept.map(({ from, rise }, index) => lineOf(index, from, rise, length, isPlumb));
}

/** 2 where a wire may run through a column, 1 right beside, 0 where none does, -1 where the mesh hides it. */
function readColumn(
  { width, height, values }: Plane,
  covered: Uint8Array,
  { width: broad, tone, stray }: WireLook,
  isPlumb: boolean,
  at: number,
  signs: Int8Array,
): void {
  const across = isPlumb ? width : height;
  const [first, step] = isPlumb ? [at * width, 1] : [at, width];
  const sums = new Float64Array(across + 1);
  for (let t = 0; t < across; t++) sums[t + 1] = sums[t]! + values[first + t * step]!;
  const mean = (from: number, to: number): number => {
    const [a, b] = [Math.max(0, from), Math.min(across, to)];
    return b > a ? (sums[b]! - sums[a]!) / (b - a) : NaN;
  };
  const half = Math.max(1, Math.round(broad / 2 - 1));
  const side = Math.ceil(broad / 2) + 1;
  const stands = new Uint8Array(across);
  for (let t = 0; t < across; t++) {
    const core = mean(t - half, t + half + 1);
    const [one, other] = [mean(t - side - 3, t - side), mean(t + side + 1, t + side + 4)];
    const nearer = Math.max(Math.min(core - one, core - other), Math.min(one - core, other - core));
    if (nearer > STANDS_OUT && Math.abs(core - tone) < STRAYS * stray) stands[t] = 1;
  }
  for (let t = 0; t < across; t++)
    signs[t] = covered[first + t * step]
      ? -1
      : stands[t]
        ? 2
        : stands[t - 1] || stands[t + 1]
          ? 1
          : 0;
}

/** How well a straight line stands out, a little beside counting half; 0 where too little of it does. */
function worthAlong(
  signs: Int8Array,
  columns: number,
  across: number,
  from: number,
  rise: number,
): number {
  const stands = [0, 0, 0];
  const seen = [0, 0, 0];
  let worth = 0;
  for (let c = 0; c < columns; c++) {
    const t = Math.round(from + (rise * c) / (columns - 1));
    if (t < 0 || t >= across) return 0;
    const sign = signs[c * across + t]!;
    if (sign < 0) continue;
    const third = Math.floor((3 * c) / columns);
    seen[third]!++;
    if (sign > 0) stands[third]!++;
    worth += sign;
  }
  const all = seen[0]! + seen[1]! + seen[2]!;
  if (all < SEEN * columns) return 0;
  if (stands.some((n, k) => n < THIRD * seen[k]!)) return 0;
  return stands[0]! + stands[1]! + stands[2]! >= WHOLE * all ? worth / all : 0;
}

function lineOf(
  index: number,
  from: number,
  rise: number,
  length: number,
  isPlumb: boolean,
): FamilyLine {
  const n = Math.floor((length - 1) / SPACING) + 1;
  const along = Float32Array.from({ length: n }, (_, i) => i * SPACING);
  const over = along.map((s) => from + (rise * s) / (length - 1));
  const long = Math.hypot(length - 1, rise);
  const [n1, n2] = [
    new Float32Array(n).fill(-rise / long),
    new Float32Array(n).fill((length - 1) / long),
  ];
  return isPlumb
    ? { index, x: over, y: along, nx: n2, ny: n1 }
    : { index, x: along, y: over, nx: n1, ny: n2 };
}
