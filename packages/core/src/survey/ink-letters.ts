import { medianOf } from '../raster/median.js';
import type { Layer } from '../raster/layers.js';
import { judged } from './ink-pieces.js';
import { isRuled } from './ink-ruled.js';
import type { Stroke } from './ink-stroke.js';
import { breadthsOf, crestOf, halfOf, SAME, SURELY } from './ink-stroke.js';
import type { Stretch } from './ink-stroke.js';
import type { Piece } from './pieces.js';
import { piecesOf } from './pieces.js';
import { strokePixels } from './stroke-mask.js';

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
/** Breadths that letters are apart at most, and words, of which more is asked for it. */
export const LETTERS = 3;
const WORDS = { gap: 6, crisp: 0.9 } as const;
/** What strays must be as broad as this share of the broader strokes: shadows in joints are not. */
const SLIGHT = 0.65;

/**
 * Share of its edge that must be a clear step for a piece no crest was found on that is a square of the ink's breadth, and how
 * much less for one e times as large: logistic regression on made-up writing.
 */
const [ALONE, EACH] = [0.9, 0.067];

/** A piece no crest was found on, and the share of its edge that is a clear step. */
interface Doubtful {
  readonly piece: Piece;
  readonly crisp: number;
}

/** An ink by the strokes that were found of it. */
export interface InkStrokes {
  readonly strokes: readonly Stroke[];
  /** How far a pixel is from its colour, levels. */
  readonly off: (p: number) => number;
  /** How much further its colour may stray than as a rule: a foreign hue tells it. */
  readonly loose: number;
}

/** How far a layer's pixels are from a colour, levels of the furthest channel. @param raised by how much they count for more */
export function offFrom(
  { grey, colours }: Layer,
  colour: readonly number[],
  raised: number,
): (p: number) => number {
  const planes = (colours.length ? colours : [grey, grey, grey]).map(({ values }) => values);
  return (p) => {
    let far = 0;
    for (let c = 0; c < planes.length; c++) {
      const d = Math.abs(planes[c]![p]! - colour[c]!);
      if (d > far) far = d;
    }
    return raised * far;
  };
}

/**
 * Thin, crisp pieces of an ink's colour in a stretch of the picture, letters no crest was found on among them.
 * @param taken what belongs to another
 */
export function lettersIn(
  layer: Layer,
  ink: InkStrokes,
  stretch: Stretch,
  taken: Uint8Array,
): Piece[] {
  const { grey } = layer;
  const { width, height } = grey;
  const { off } = ink;
  const { breadth, thin } = breadthsOf(ink.strokes);
  const within = withinOf(ink.strokes, off, width);
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
    if (ink.loose === 1 && isRuled(piece, width, deepest)) continue;
    const crossed = isCrossed(piece);
    if (deepest > most || crisp < asked(deepest, stray)) {
      if (crossed) thick.push(piece);
    } else if (crossed && piece.pixels.length > 0.3 * breadth * breadth) good.push(piece);
    else if (
      piece.pixels.length > breadth * thin &&
      2 * deepest > 0.6 * thin &&
      crisp > ALONE - EACH * Math.log(piece.pixels.length / breadth ** 2)
    )
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
  return good;
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
