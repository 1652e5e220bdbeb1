/** What a place costs that is unlike what the others hold, beside its ring's misfit. */
const UNLIKE = 4;
/** Squared codes by which rings differ for no reason. */
const GRAIN = 20;

/** A place as far as it is compared with others. */
interface Told {
  /** Mean squared difference of its ring. */
  readonly misfit: number;
  /** Colours of the site's pixels there, three values a pixel. */
  readonly body: Float32Array;
}

/**
 * How much the places whose rings fit best disagree with one another about what is hidden: each is held against the mean of the
 * others, weighted by how well their rings fit (non-local means, Buades et al. 2005). Likeness is told by correlation,
 * so that smooth places have no advantage.
 * @returns for every place, in squared codes
 */
export function disagreements(places: readonly Told[]): number[] {
  const least = Math.min(...places.map((p) => p.misfit));
  const weights = places.map((p) => falling((p.misfit - least) / (least + GRAIN)));
  const all = weights.reduce((a, b) => a + b, 0);
  const length = places[0]!.body.length;
  const sums = new Float64Array(length);
  places.forEach(({ body }, k) => {
    for (let i = 0; i < length; i++) sums[i]! += weights[k]! * body[i]!;
  });
  const told = places.map(({ body }, k) => {
    const others = Math.max(1e-9, all - weights[k]!);
    return compared(
      body,
      sums.map((sum, i) => (sum - weights[k]! * body[i]!) / others),
    );
  });
  const usual = told.reduce((sum, t, k) => sum + weights[k]! * t.own, 0) / all;
  return told.map(({ own, rest, both, step }, k) => {
    const unlike = step + usual + rest - 2 * both * Math.sqrt(usual / Math.max(1e-9, own));
    // A ring that fits like a copy needs no other's word, and where no other counts there is none.
    const { misfit } = places[k]!;
    const asked = (misfit / (misfit + GRAIN)) * (1 - weights[k]! / all);
    return UNLIKE * asked * unlike;
  });
}

/** Near to exp(-x) for x of 0 and more, from operations that every engine does alike. */
function falling(x: number): number {
  const t = 1 + x / 8;
  const fourth = t * t * (t * t);
  return 1 / (fourth * fourth);
}

/** Mean squares of two bodies about their means, of their product, and of the step between their means; colours summed. */
function compared(
  body: ArrayLike<number>,
  rest: ArrayLike<number>,
): { own: number; rest: number; both: number; step: number } {
  const n = body.length / 3;
  const out = { own: 0, rest: 0, both: 0, step: 0 };
  for (let c = 0; c < 3; c++) {
    let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
    for (let i = c; i < body.length; i += 3) {
      const [u, v] = [body[i]!, rest[i]!];
      a += u;
      b += v;
      aa += u * u;
      bb += v * v;
      ab += u * v;
    }
    out.own += aa / n - (a / n) ** 2;
    out.rest += bb / n - (b / n) ** 2;
    out.both += ab / n - (a / n) * (b / n);
    out.step += ((a - b) / n) ** 2;
  }
  return out;
}
