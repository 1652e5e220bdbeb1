import type { Crests } from './crests.js';
import type { Mark, Phase } from './phase.js';
import { phaseAt, phaseThrough, slopeAt, TERMS } from './phase.js';

/** A family of near-parallel, near-evenly spaced lines, and how well a picture's crests bear it out. */
export interface Family {
  readonly phase: Phase;
  /** Level of the pyramid its crests are clearest at. */
  readonly level: number;
  /** Share of its lines' length borne out by crests on them. */
  readonly borne: number;
  /** Crests of its direction midway between its lines, as a share of those on them. */
  readonly between: number;
  /** Direction of the normal at the centre of the picture, radians in [0, pi). */
  readonly angle: number;
  /** Distance of its lines at the centre of the picture, px. */
  readonly step: number;
}

interface Frame {
  readonly width: number;
  readonly height: number;
}

interface Seed {
  readonly cx: number;
  readonly cy: number;
  readonly angle: number;
  readonly step: number;
  readonly offset: number;
  readonly quality: number;
}

/** Distances of lines looked for, px: from, and as a share of the picture's shorter side. */
const STEP = { from: 14, most: 0.25, grow: 1.07 } as const;
const PEAKS = 6;
const SEEDS = 2;
/** Crests asked in a window, and while a family grows. */
const ASKED = { window: 240, growth: 5000 } as const;

/** Families of lines that start from the strongest directions of a picture, best first. */
export function familiesOf(crests: Crests, frame: Frame): Family[] {
  const families: Family[] = [];
  const some = thinned(crests, ASKED.growth);
  for (const angle of directionsOf(crests)) {
    const found = seedsOf(crests, angle, frame)
      .flatMap((seed) => BOWED.map((bowed) => grown(some, crests, seed, bowed, frame)))
      .filter((f): f is Family => f !== null)
      .sort((a, b) => worth(b) - worth(a));
    if (found[0]) families.push(found[0]);
  }
  return families.sort((a, b) => worth(b) - worth(a));
}

/** About so many of the crests, evenly taken. */
function thinned(crests: Crests, most: number): Crests {
  const every = Math.ceil(crests.count / most);
  if (every < 2) return crests;
  const count = Math.floor(crests.count / every);
  const take = (list: Float32Array): Float32Array =>
    Float32Array.from({ length: count }, (_, k) => list[k * every]!);
  return {
    count,
    x: take(crests.x),
    y: take(crests.y),
    tx: take(crests.tx),
    ty: take(crests.ty),
    length: take(crests.length),
    level: Uint8Array.from({ length: count }, (_, k) => crests.level[k * every]!),
  };
}

/** What a family is preferred by. */
export function worth({ borne, between }: Family): number {
  return borne * (1 - Math.min(1, between));
}

/** Strongest directions of lines' normals, radians in [0, pi). */
function directionsOf({ count, tx, ty, length }: Crests): number[] {
  const bins = 90;
  const counts = new Float64Array(bins);
  for (let k = 0; k < count; k++) {
    const angle = Math.atan2(tx[k]!, -ty[k]!);
    counts[Math.floor((((angle / Math.PI) % 1) + 1) * bins) % bins]! += length[k]!;
  }
  const smooth = counts.map((_, b) => {
    let sum = 0;
    for (let d = -3; d <= 3; d++) sum += counts[(b + d + bins) % bins]! * (4 - Math.abs(d));
    return sum;
  });
  const peaks: number[] = [];
  for (let b = 0; b < bins; b++)
    if (smooth[b]! > smooth[(b + bins - 1) % bins]! && smooth[b]! >= smooth[(b + 1) % bins]!)
      peaks.push(b);
  return peaks
    .sort((a, b) => smooth[b]! - smooth[a]!)
    .slice(0, PEAKS)
    .map((b) => ((b + 0.5) / bins) * Math.PI);
}

/** Angle and distance at which the crests of a window fall in step most, window by window. */
function seedsOf(crests: Crests, angle: number, { width, height }: Frame): Seed[] {
  const { count, x, y, tx, ty } = crests;
  const radius = 0.22 * Math.min(width, height) + 40;
  const [nx, ny] = [Math.cos(angle), Math.sin(angle)];
  const seeds: Seed[] = [];
  const most = Math.min(STEP.most * Math.min(width, height), 0.7 * radius);
  for (const fy of [0.25, 0.5, 0.75])
    for (const fx of [0.25, 0.5, 0.75]) {
      const [cx, cy] = [fx * width, fy * height];
      const near: number[] = [];
      for (let k = 0; k < count; k++)
        if (
          Math.abs(x[k]! - cx) < radius &&
          Math.abs(y[k]! - cy) < radius &&
          Math.abs(tx[k]! * nx + ty[k]! * ny) < 0.17
        )
          near.push(k);
      if (near.length >= 30) seeds.push(...seedsIn(crests, near, cx, cy, angle, most));
    }
  return seeds.sort((a, b) => b.quality - a.quality).slice(0, SEEDS);
}

/** The same in one window round a place. @param all crests in the window @param most largest distance of lines */
function seedsIn(
  { x, y, length }: Crests,
  all: readonly number[],
  cx: number,
  cy: number,
  angle: number,
  most: number,
): Seed[] {
  const every = Math.ceil(all.length / ASKED.window);
  const near = all.filter((_, i) => i % every === 0);
  const lengths = Float64Array.from(near, (k) => length[k]!);
  const total = lengths.reduce((sum, l) => sum + l, 0);
  const found: Seed[] = [];
  for (let turn = -2; turn <= 2; turn++) {
    const own = angle + (turn * Math.PI) / 75;
    const [ax, ay] = [Math.cos(own), Math.sin(own)];
    const along = Float64Array.from(near, (k) => (x[k]! - cx) * ax + (y[k]! - cy) * ay);
    for (let step = STEP.from; step <= most; step *= STEP.grow) {
      const [re, im] = inStep(along, lengths, (2 * Math.PI) / step);
      const quality = Math.hypot(re, im) / total - 1.2 / Math.sqrt(near.length);
      const offset = Math.atan2(im, re) / (2 * Math.PI);
      found.push({ cx, cy, angle: own, step, offset, quality });
    }
  }
  const best = Math.max(...found.map((s) => s.quality));
  if (best < 0.12) return [];
  // Lines in step at a distance are in step at its half and third as well: the widest that is nearly as good is meant.
  const good = found.filter((s) => s.quality > 0.75 * best).sort((a, b) => b.quality - a.quality);
  const widest = good
    .filter((s) => s.step > 1.5 * good[0]!.step)
    .sort((a, b) => b.quality - a.quality)[0];
  return widest ? [good[0]!, widest] : [good[0]!];
}

/** How far places are in step at a frequency: their sum as a vector. */
function inStep(along: Float64Array, lengths: Float64Array, f: number): [number, number] {
  let [re, im] = [0, 0];
  for (let i = 0; i < along.length; i++) {
    re += lengths[i]! * Math.cos(f * along[i]!);
    im += lengths[i]! * Math.sin(f * along[i]!);
  }
  return [re, im];
}

/** Half the width in phase of what counts as on a line. */
const ON = 0.12;

/**
 * From which radius on lines may bow, shares of the picture's half diagonal: early, few lines may bow to what is none of
 * them; late, the outer ones of a bowed mesh fall out of step. The better one counts.
 */
const BOWED = [0.5, 0.38] as const;

/** Fits a phase to the crests about a seed, then to wider and wider surroundings. */
function grown(
  some: Crests,
  crests: Crests,
  seed: Seed,
  bowed: number,
  { width, height }: Frame,
): Family | null {
  const unit = Math.hypot(width, height) / 2;
  const frame = { cx: width / 2, cy: height / 2, unit };
  const [fx, fy] = [Math.cos(seed.angle) / seed.step, Math.sin(seed.angle) / seed.step];
  const start = (frame.cx - seed.cx) * fx + (frame.cy - seed.cy) * fy - seed.offset;
  let phase: Phase = { ...frame, terms: [start, fx * unit, fy * unit, 0, 0, 0, 0, 0, 0, 0] };
  const reach = Math.hypot(Math.max(seed.cx, width - seed.cx), Math.max(seed.cy, height - seed.cy));
  let radius = 0.22 * Math.min(width, height) + 40;
  for (let last = false; !last; radius *= 1.3) {
    last = radius >= reach;
    const count =
      radius < bowed * unit ? TERMS.flat : radius < 0.9 * unit ? TERMS.bowed : TERMS.full;
    for (let round = 0; round < 3; round++) {
      const marks = marksNear(some, phase, seed, radius);
      if (marks.length < 24) return null;
      phase = phaseThrough(marks, frame, count);
    }
  }
  return measured(crests, phase, { width, height });
}

function marksNear(crests: Crests, phase: Phase, { cx, cy }: Seed, radius: number): Mark[] {
  const { count, x, y, length } = crests;
  const marks: Mark[] = [];
  const faces = facing(crests, phase);
  for (let k = 0; k < count; k++) {
    const [px, py] = [x[k]!, y[k]!];
    if ((px - cx) ** 2 + (py - cy) ** 2 > radius * radius || !faces(k)) continue;
    const at = phaseAt(phase, px, py);
    const off = at - Math.round(at);
    const share = 1 - (off / 0.28) ** 2;
    if (share <= 0) continue;
    marks.push({ x: px, y: py, weight: length[k]! * share * share, phase: Math.round(at) });
  }
  return marks;
}

/** Tells whether a crest runs along the lines of a phase; asked so often that it makes nothing on the way. */
function facing({ x, y, tx, ty }: Crests, { cx, cy, unit, terms }: Phase): (k: number) => boolean {
  const [, b, c, d, e, f, g, h, i, j] = terms as [number, ...number[]];
  return (k) => {
    const u = (x[k]! - cx) / unit;
    const v = (y[k]! - cy) / unit;
    const sx = b! + 2 * d! * u + e! * v + 3 * g! * u * u + 2 * h! * u * v + i! * v * v;
    const sy = c! + e! * u + 2 * f! * v + h! * u * u + 2 * i! * u * v + 3 * j! * v * v;
    return Math.abs(tx[k]! * sx + ty[k]! * sy) < 0.2 * Math.sqrt(sx * sx + sy * sy);
  };
}

/** Crests on every second line, as a share of those on the others, below which those lines are none. */
const EVERY_SECOND = 0.35;

function measured(crests: Crests, phase: Phase, { width, height }: Frame): Family | null {
  const [sx, sy] = slopeAt(phase, width / 2, height / 2);
  const step = 1 / Math.hypot(sx, sy);
  const widest = Math.min(width, height) / 2;
  if (!(step > 6) || step > widest) return null;
  const [on, off] = [new Float64Array(8), new Float64Array(8)];
  const turns = [0, 0] as [number, number];
  const faces = facing(crests, phase);
  for (let k = 0; k < crests.count; k++) {
    if (!faces(k)) continue;
    const at = phaseAt(phase, crests.x[k]!, crests.y[k]!);
    const d = Math.abs(at - Math.round(at));
    if (d < ON) {
      on[crests.level[k]!]! += crests.length[k]!;
      turns[Math.abs(Math.round(at)) & 1]! += crests.length[k]!;
    }
    if (d > 0.5 - ON) off[crests.level[k]!]! += crests.length[k]!;
  }
  const [few, many] = turns[0] < turns[1] ? [0, 1] : [1, 0];
  if (turns[few]! < EVERY_SECOND * turns[many]! && 2 * step <= widest) {
    const [first, ...rest] = phase.terms;
    const terms = [(first! - many) / 2, ...rest.map((term) => term / 2)];
    return measured(crests, { ...phase, terms }, { width, height });
  }
  // Lines in an area are as long as the phase is steep.
  let lines = 0;
  const grid = 24;
  for (let j = 0; j < grid; j++)
    for (let i = 0; i < grid; i++)
      lines += Math.hypot(
        ...slopeAt(phase, ((i + 0.5) / grid) * width, ((j + 0.5) / grid) * height),
      );
  lines *= (width * height) / (grid * grid);
  const level = on.indexOf(Math.max(...on));
  return {
    phase,
    level,
    borne: on[level]! / lines,
    between: off[level]! / Math.max(1, on[level]!),
    angle: ((Math.atan2(sy, sx) % Math.PI) + Math.PI) % Math.PI,
    step,
  };
}
