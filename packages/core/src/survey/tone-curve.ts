import type { Lab } from '../colour/lab.js';
import { labOfSrgb } from '../colour/lab.js';
import { medianOf } from '../raster/median.js';
import type { Layer } from '../raster/layers.js';
import { blurred } from '../raster/plane.js';

/** The curve that ties colour to lightness in a print of one tone. */
export interface ToneCurve {
  /** CIELAB of every pixel of the level it was told from. */
  readonly labs: readonly Lab[];
  /** The curve's own colour at the lightness of another. */
  at(lab: Lab): { readonly a: number; readonly b: number };
  /** How far a colour strays from the curve, CIELAB units. */
  stray(lab: Lab): number;
  /** What pixels stray by in the middle: small for prints of one tone. */
  readonly usual: number;
  /** Whether it is a print of one tone at all: few of its pixels stray, and the others hardly. */
  readonly oneTone: boolean;
}

/**
 * A print keeps to one tone when its pixels stray by no more, in the middle, and no more of them by so much: a coloured thing
 * before a grey ground is none. CIELAB units, and a share.
 */
const MONOCHROME = { usual: 1.3, off: 5, share: 0.2 } as const;
/** Steps of lightness in which the curve is told, and the least share of the picture that tells a step. */
const STEPS = 24;
const KNOWN = 0.002;

/** @param layer in colour, small: about 400 px across */
export function toneCurveOf({ grey, colours }: Layer): ToneCurve {
  const count = grey.width * grey.height;
  const [r, g, b] = colours.map((plane) => blurred(plane, 1.5).values) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const labs = Array.from({ length: count }, (_, p) =>
    labOfSrgb(r[p]! / 255, g[p]! / 255, b[p]! / 255),
  );
  const steps = Array.from({ length: STEPS }, (): { a: number[]; b: number[] } => ({
    a: [],
    b: [],
  }));
  const stepOf = ({ L }: Lab): number =>
    Math.max(0, Math.min(STEPS - 1, Math.floor((L / 100) * STEPS)));
  for (const lab of labs) {
    const step = steps[stepOf(lab)]!;
    step.a.push(lab.a);
    step.b.push(lab.b);
  }
  const curve = steps.map((s) => ({
    a: medianOf(s.a),
    b: medianOf(s.b),
    known: s.a.length > KNOWN * count,
  }));
  const told = curve.map((_, k) => k).filter((k) => curve[k]!.known);
  const own = told.map((k) => curve[k]!);
  const [as, bs] = [runningMedian(own.map(({ a }) => a)), runningMedian(own.map(({ b }) => b))];
  told.forEach((k, i) => (curve[k] = { a: as[i]!, b: bs[i]!, known: true }));
  // What is darker or lighter than the picture itself is held against its darkest or lightest tones.
  const nearest = curve.map(
    (own, k) =>
      curve[told.reduce((a, b) => (Math.abs(b - k) < Math.abs(a - k) ? b : a), told[0] ?? k)] ??
      own,
  );
  const at = (lab: Lab): { a: number; b: number } => nearest[stepOf(lab)]!;
  const stray = (lab: Lab): number => {
    const own = at(lab);
    return Math.hypot(lab.a - own.a, lab.b - own.b);
  };
  const strays = labs.map(stray);
  const usual = medianOf(strays);
  const off = strays.filter((s) => s > MONOCHROME.off).length;
  const oneTone = usual <= MONOCHROME.usual && off <= MONOCHROME.share * count;
  return { labs, at, stray, usual, oneTone };
}

/** How many steps to either side a step has to go with: what is laid on a print has a tone or two, and may be most of it. */
const BESIDE = 2;

/** Each value's median with those beside it, fewer towards the ends: what only rises or falls stays as it is. */
function runningMedian(values: readonly number[]): number[] {
  return values.map((_, k) => {
    const reach = Math.min(BESIDE, k, values.length - 1 - k);
    return medianOf(values.slice(k - reach, k + reach + 1));
  });
}
