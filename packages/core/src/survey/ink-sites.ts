import { medianOf } from '../raster/median.js';
import { judged } from './ink-pieces.js';
import type { Stroke } from './ink-stroke.js';
import { breadthsOf, crestOf, halfOf, SAME, stretchOf, SURELY } from './ink-stroke.js';
import type { Layer } from '../raster/layers.js';
import type { Piece } from './pieces.js';
import { gathered, piecesOf } from './pieces.js';
import { strokePixels } from './stroke-mask.js';

/** Levels within which a pixel may be of an ink, half covered. */
const PERHAPS = 70;
/** By how much the colour of a soft edge goes on changing from px to px, levels: ground like the ink does not. */
const SLOPE = 5;
/** How far ink strays from its colour as a rule, times what it does along its crests, and levels at least. */
const NEARLY = { over: 3, least: 9 } as const;
/** Share of a stroke's edge that must be a clear step. */
const CRISP = 0.7;
/** The same at most where the colour is less steady than that of other strokes, and by what share more it strays then. */
const SHARP = 0.95;
const GRADE = 0.7;
/**
 * How far the heart of a stroke strays from the ink's colour, levels, and how much further than the middle one of its
 * kind: what was there before strays more.
 */
const STEADY = { least: 4, over: 1.7 } as const;
/** Share of a stroke that stands out where it does so all along. */
const WHOLE = 0.95;
/** Pieces longer than so many of their breadths and straight are parts of things, not of letters. */
const RULED = 16;
/** Where a piece reaches across this many of its breadths it winds, as a word does. */
const WINDS = 1.5;
/** Breadths that letters are apart at most, and words, of which more is asked for it. */
const LETTERS = 3;
const WORDS = { gap: 6, crisp: 0.9 } as const;
/** What strays must be as broad as this share of the broader strokes: shadows in joints are not. */
const SLIGHT = 0.65;

/** A piece no crest was found on, and the share of its edge that is a clear step. */
interface Doubtful {
  readonly piece: Piece;
  readonly crisp: number;
}

/**
 * Where an ink lies: all thin, crisp pieces of its colour in the stretch its strokes take up, letters no crest was found
 * on among them. Pieces near each other are one site.
 * @returns sites, pixels in reading order; `taken` is marked
 */
export function inkSites(
  { grey, colours }: Layer,
  ink: {
    readonly strokes: readonly Stroke[];
    readonly colour: readonly number[];
    readonly loose: number;
  },
  taken: Uint8Array,
): Int32Array[] {
  const { width, height } = grey;
  const planes = (colours.length ? colours : [grey, grey, grey]).map(({ values }) => values);
  const off = (p: number): number => {
    let far = 0;
    for (let c = 0; c < planes.length; c++) {
      const d = Math.abs(planes[c]![p]! - ink.colour[c]!);
      if (d > far) far = d;
    }
    return far;
  };
  const { breadth, thin } = breadthsOf(ink.strokes);
  const within = withinOf(ink.strokes, off, width);
  const stretch = stretchOf(ink.strokes, 4 * breadth, width, height);
  const like = (from: number, to: number): Uint8Array => {
    const mask = new Uint8Array(width * height);
    for (let y = stretch.top; y <= stretch.bottom; y++)
      for (let x = stretch.left; x <= stretch.right; x++) {
        const p = y * width + x;
        if (taken[p]) continue;
        const far = off(p) / ink.loose;
        if (far > from && far <= to) mask[p] = 1;
      }
    return mask;
  };
  const most = halfOf(breadth);
  const crests = new Uint8Array(width * height);
  for (const stroke of ink.strokes) for (const p of crestOf(stroke, width)) crests[p] = 1;
  const isCrossed = ({ pixels }: Piece): boolean => pixels.some((p) => crests[p]);
  const all = like(-1, SURELY);
  const near = within < SURELY ? like(-1, within) : all;
  const pieces = judged(near, all, off, width, height);
  // Things of the picture that are nearly of the ink's colour hang on letters: they are judged by themselves.
  if (within < SURELY) pieces.push(...judged(like(within, SURELY), all, off, width, height));
  const [good, doubtful, thick]: [Piece[], Doubtful[], Piece[]] = [[], [], []];
  const steady = ink.loose * steadyOf(pieces.filter(({ piece }) => isCrossed(piece)));
  const asked = (deepest: number, stray: number): number =>
    stray <= steady
      ? CRISP
      : 2 * deepest < SLIGHT * breadth
        ? Infinity
        : Math.min(SHARP, CRISP + ((SHARP - CRISP) * (stray / steady - 1)) / GRADE);
  for (const { piece, deepest, crisp, stray } of pieces) {
    if (ruled(piece, width, deepest)) continue;
    const crossed = isCrossed(piece);
    if (deepest > most || crisp < asked(deepest, stray)) {
      if (crossed) thick.push(piece);
    } else if (crossed && piece.pixels.length > 0.3 * breadth * breadth) good.push(piece);
    else if (piece.pixels.length > breadth * thin && 2 * deepest > 0.6 * thin)
      doubtful.push({ piece, crisp });
  }
  takeIn(doubtful, good, breadth);
  // Where the ink runs over ground of its own tone, only its crests tell it.
  const part = new Uint8Array(width * height);
  for (const { pixels } of thick) for (const p of pixels) part[p] = 1;
  for (const stroke of ink.strokes) {
    const own = strokePixels(stroke, grey).filter((p) => part[p]);
    const crest = crestOf(stroke, width).filter((p) => part[p]);
    const stray = medianOf(crest.map(off));
    if (own.length < breadth * thin || !crest.length || stray > strayOf(stroke, steady)) continue;
    const mask = new Uint8Array(width * height);
    for (const p of own) mask[p] = 1;
    const near = piecesOf(mask, width);
    good.push(...beside(near, good, LETTERS * breadth));
  }
  return gathered(good, LETTERS * breadth).map((group) => {
    const site = withSoftEdge(
      group.flatMap(({ pixels }) => [...pixels]),
      (p, beyond) =>
        off(p) <= Math.max(PERHAPS, 2 * ink.loose * SURELY) && off(beyond) >= off(p) + SLOPE,
      taken,
      { width, height },
    );
    for (const p of site) taken[p] = 1;
    return site;
  });
}

/** What a stroke may stray: one of a single colour all along, standing out all along, as far as strokes of an ink do. */
function strayOf({ spread, traits }: Stroke, steady: number): number {
  return spread <= STEADY.least && traits.whole >= WHOLE ? Math.max(steady, SAME) : steady;
}

/** How far an ink strays from its colour, judged by what is usual along its crests, levels of the furthest channel. */
function withinOf(strokes: readonly Stroke[], off: (p: number) => number, width: number): number {
  const along = strokes.flatMap((stroke) => crestOf(stroke, width).map(off));
  return Math.max(NEARLY.least, Math.min(SURELY, NEARLY.over * medianOf(along)));
}

/** How far pieces of an ink may stray, judged by the crisp ones, the larger for more. */
function steadyOf(pieces: readonly { piece: Piece; crisp: number; stray: number }[]): number {
  const crisp = pieces.filter((p) => p.crisp > 0.8).sort((a, b) => a.stray - b.stray);
  const half = crisp.reduce((sum, { piece }) => sum + piece.pixels.length, 0) / 2;
  let sum = 0;
  const middle = crisp.find(({ piece }) => (sum += piece.pixels.length) >= half);
  return Math.max(STEADY.least, STEADY.over * (middle?.stray ?? 0));
}

/** Adds to pieces that are ink what is near them, then what is near that, and so on: letters no crest was found on. */
function takeIn(doubtful: readonly Doubtful[], good: Piece[], breadth: number): void {
  let left = [...doubtful];
  for (let added = good; added.length;) {
    const near = new Set(
      left.filter(({ piece, crisp }) => {
        const gap = (crisp >= WORDS.crisp ? WORDS.gap : LETTERS) * breadth;
        return beside([piece], added, gap).length > 0;
      }),
    );
    added = [...near].map(({ piece }) => piece);
    good.push(...added);
    left = left.filter((one) => !near.has(one));
  }
}

/** Those of some pieces whose boxes come near one of others. */
function beside(some: readonly Piece[], others: readonly Piece[], gap: number): Piece[] {
  return some.filter((a) =>
    others.some(
      (b) =>
        Math.max(a.left - b.right, b.left - a.right, a.top - b.bottom, b.top - a.bottom) <= gap,
    ),
  );
}

/** Whether a piece is a long straight bar: its spread across is that of a bar so thick, and it does not wind about within it. */
function ruled({ pixels }: Piece, width: number, deepest: number): boolean {
  let [cx, cy] = [0, 0];
  for (const p of pixels) {
    cx += p % width;
    cy += (p / width) | 0;
  }
  cx /= pixels.length;
  cy /= pixels.length;
  let [xx, yy, xy] = [0, 0, 0];
  for (const p of pixels) {
    const [dx, dy] = [(p % width) - cx, ((p / width) | 0) - cy];
    xx += dx * dx;
    yy += dy * dy;
    xy += dx * dy;
  }
  const root = Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
  const [long, across] = [(xx + yy) / 2 + root, Math.max(0, (xx + yy) / 2 - root)].map((v) =>
    Math.sqrt((12 * v) / pixels.length),
  ) as [number, number];
  const breadth = 2 * deepest;
  if (long <= RULED * breadth || across >= 3 * breadth) return false;
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [ax, ay] = [Math.cos(angle), Math.sin(angle)];
  const reach = new Map<number, [number, number]>();
  for (const p of pixels) {
    const [dx, dy] = [(p % width) - cx, ((p / width) | 0) - cy];
    const at = Math.floor((dx * ax + dy * ay) / breadth);
    const off = dy * ax - dx * ay;
    const [least, most] = reach.get(at) ?? [off, off];
    reach.set(at, [Math.min(least, off), Math.max(most, off)]);
  }
  return medianOf([...reach.values()].map(([least, most]) => most - least + 1)) < WINDS * breadth;
}

function withSoftEdge(
  pixels: readonly number[],
  may: (p: number, beyond: number) => boolean,
  taken: Uint8Array,
  { width, height }: { width: number; height: number },
): Int32Array {
  const found = new Set(pixels);
  let edge = [...pixels];
  for (let round = 0; round < 3; round++) {
    const next: number[] = [];
    for (const p of edge) {
      const x = p % width;
      for (const q of [x > 0 ? p - 1 : -1, x < width - 1 ? p + 1 : -1, p - width, p + width]) {
        if (q < 0 || q >= width * height || taken[q] || found.has(q)) continue;
        const beyond = Math.max(0, Math.min(width * height - 1, 2 * q - p));
        // The first px outward is always half covered.
        if (round > 0 && !found.has(beyond) && !may(q, beyond)) continue;
        found.add(q);
        next.push(q);
      }
    }
    edge = next;
  }
  return Int32Array.from(found).sort();
}
