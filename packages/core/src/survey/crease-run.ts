import type { Paper } from './paper.js';

/** A line of paper: its points and its breadth at them, px of the paper. */
export interface Course {
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  readonly widths: Float32Array;
}

/** Steps along the way onward, px; lanes to its sides are one px apart. */
const STEP = 3;
/** How far paper may wander off the way onward, share of the distance and px. */
const WANDER = { share: 0.12, least: 12, most: 60 } as const;
/** How much of a course tells its direction, px. */
const BACK = 160;
/** Share of the paper's height over its sides below which a step speaks against its going on. */
const EVEN = 0.35;
/** Evidence that a way onward needs, steps of full height less {@link EVEN}. */
const NEEDED = 5;
/** Cost of a step that changes the lane. */
const BEND = 0.12;
/** Sides as bright as paper say nothing, grey levels. */
const TELLING = 25;

/**
 * Follows a crease beyond both of its ends, across crossings and pale places, for as long as bare paper comes again:
 * at either end the path of most paper (dynamic programming) in a corridor round its last direction, up to where its
 * evidence is greatest.
 * @param tone how near bare paper itself comes to its colour, 0..255
 */
export function followedOn(paper: Paper, course: Course, tone: number): Course {
  const onward = grown(paper, course, tone);
  return turned(grown(paper, turned(onward), tone));
}

/** A crease that ends this near the border goes on to it, share of the shorter side. */
const NEAR = 0.06;
/** Mean of what a way to the border says that does not speak against it. */
const SILENT = EVEN - 0.05;

/**
 * The course, led straight on to the border at an end that is near it, or from which the ground is as pale as paper
 * all the way: there a crease does not show, but creases run from border to border.
 */
export function toTheBorder(paper: Paper, course: Course, tone: number): Course {
  const onward = ledOut(paper, course, tone);
  return turned(ledOut(paper, turned(onward), tone));
}

function ledOut(paper: Paper, course: Course, tone: number): Course {
  const way = wayOn(course, paper);
  const wide = breadthOf(course);
  const far = way.steps * STEP > NEAR * Math.min(paper.width, paper.height);
  if (far) {
    let said = 0;
    for (let s = 0; s < way.steps; s++) said += paperAt(paper, way, s, 0, wide, tone);
    if (said < SILENT * way.steps) return course;
  }
  const { x, y, dx, dy, reach } = way;
  return {
    xs: Float32Array.from([...course.xs, x + reach * dx]),
    ys: Float32Array.from([...course.ys, y + reach * dy]),
    widths: Float32Array.from([...course.widths, course.widths.at(-1)!]),
  };
}

function breadthOf({ widths }: Course): number {
  return widths.slice().sort()[widths.length >> 1]!;
}

function turned({ xs, ys, widths }: Course): Course {
  return {
    xs: xs.slice().reverse(),
    ys: ys.slice().reverse(),
    widths: widths.slice().reverse(),
  };
}

function grown(paper: Paper, course: Course, tone: number): Course {
  const way = wayOn(course, paper);
  if (way.steps < 2) return course;
  const wide = breadthOf(course);
  const path = pathOf(paper, way, wide, tone);
  if (!path.length) return course;
  const points = path.map((off, s) => placeOn(way, s, off));
  return {
    xs: Float32Array.from([...course.xs, ...points.map(([x]) => x)]),
    ys: Float32Array.from([...course.ys, ...points.map(([, y]) => y)]),
    widths: Float32Array.from([...course.widths, ...points.map(() => wide)]),
  };
}

/** The place so many steps along a way and so far to its right, px. */
function placeOn({ x, y, dx, dy }: Way, step: number, off: number): readonly [number, number] {
  const d = (step + 1) * STEP;
  return [x + d * dx - off * dy, y + d * dy + off * dx];
}

interface Way {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  /** To the picture's border, px and steps. */
  readonly reach: number;
  readonly steps: number;
}

/** The direction of the last stretch of a course, and how far it goes in the picture. */
function wayOn({ xs, ys }: Course, { width, height }: Paper): Way {
  const n = xs.length;
  const [x, y] = [xs[n - 1]!, ys[n - 1]!];
  let from = n - 1;
  while (from > 0 && Math.hypot(xs[from]! - x, ys[from]! - y) < BACK) from--;
  const [px, py] = [x - xs[from]!, y - ys[from]!];
  const far = Math.hypot(px, py) || 1;
  // Its chord and the mean way to its end, half and half: the chord alone hangs on where it happens to start.
  let [mx, my] = [0, 0];
  for (let i = from; i < n; i++) {
    mx += x - xs[i]!;
    my += y - ys[i]!;
  }
  const mean = Math.hypot(mx, my) || 1;
  let [dx, dy] = [px / far + mx / mean, py / far + my / mean];
  const d = Math.hypot(dx, dy) || 1;
  [dx, dy] = [dx / d, dy / d];
  const reach = Math.min(
    dx > 0 ? (width - 1 - x) / dx : dx < 0 ? -x / dx : Infinity,
    dy > 0 ? (height - 1 - y) / dy : dy < 0 ? -y / dy : Infinity,
  );
  return { x, y, dx, dy, reach, steps: Math.floor(reach / STEP) };
}

/** Offsets to the right of the way at every step, as far as paper speaks for it; empty when it does not. */
function pathOf(paper: Paper, way: Way, wide: number, tone: number): number[] {
  const { steps } = way;
  const most = Math.round(
    Math.min(WANDER.most, Math.max(WANDER.least, WANDER.share * steps * STEP)),
  );
  const lanes = 2 * most + 1;
  const sum = new Float64Array(steps * lanes).fill(-Infinity);
  const came = new Int8Array(steps * lanes);
  let best = { value: NEEDED, at: -1 };
  for (let s = 0; s < steps; s++) {
    const open = Math.min(most, WANDER.least + Math.round(WANDER.share * s * STEP));
    for (let k = most - open; k <= most + open; k++) {
      let before = s ? -Infinity : -BEND * Math.abs(k - most);
      for (let turn = -1; turn <= 1 && s; turn++) {
        const j = k + turn;
        if (j < 0 || j >= lanes) continue;
        const value = sum[(s - 1) * lanes + j]! - BEND * Math.abs(turn);
        if (value > before) {
          before = value;
          came[s * lanes + k] = turn;
        }
      }
      const value = before + paperAt(paper, way, s, k - most, wide, tone) - EVEN;
      sum[s * lanes + k] = value;
      if (value > best.value) best = { value, at: s * lanes + k };
    }
  }
  if (best.at < 0) return [];
  const last = Math.floor(best.at / lanes);
  const path = new Array<number>(last + 1);
  for (let s = last, k = best.at % lanes; s >= 0; s--) {
    path[s] = k - most;
    k += came[s * lanes + k]!;
  }
  return path;
}

/** How much a place looks like a breadth of paper between two sides, -1..1; {@link EVEN} where it cannot be told. */
function paperAt(
  paper: Paper,
  way: Way,
  step: number,
  off: number,
  wide: number,
  tone: number,
): number {
  const at = (o: number): number => {
    const [px, py] = placeOn(way, step, o);
    return paper.at(px, py);
  };
  const crest = (at(off) + at(off - wide / 4) + at(off + wide / 4)) / 3;
  const beyond = wide / 2 + 4;
  const left = (at(off - beyond) + at(off - beyond - 3)) / 2;
  const right = (at(off + beyond) + at(off + beyond + 3)) / 2;
  const brighter = Math.max(left, right);
  if (brighter > tone - TELLING) return crest > tone - 2 * TELLING ? EVEN : 0;
  return Math.max(-1, Math.min(1, (crest - brighter) / (tone - brighter)));
}
