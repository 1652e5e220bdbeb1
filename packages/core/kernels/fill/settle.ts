// Twin of src/fill/plain/settle.ts: the same labels, several times as fast.
import { at32, put32 } from './memory';

/** Costs are counted in quarters: leaving the voted colour counts a quarter of a seam. */
const SEAM: i32 = 4;
/** What going on into forbidden pixels costs. */
const UNLIKE: i32 = 4 * 64_000;

let pixels: usize = 0;
let hole: usize = 0;
let banned: usize = 0;
let sourceOf: usize = 0;
let width: i32 = 0;
let count: i32 = 0;

@inline
function difference(a: i32, b: i32): i32 {
  const colours = i16x8(-1, -1, -1, 0, 0, 0, 0, 0);
  const d = v128.and(
    i16x8.sub(
      v128.load64_zero(pixels + (<usize>a << 3)),
      v128.load64_zero(pixels + (<usize>b << 3)),
    ),
    colours,
  );
  const squares = i32x4.dot_i16x8_s(d, d);
  return i32x4.extract_lane(squares, 0) + i32x4.extract_lane(squares, 1);
}

@inline
function allowed(p: i32): bool {
  return p >= 0 && p < count && !(load<u8>(hole + p) | load<u8>(banned + p));
}

/** The way to one of the four neighbours; 0 where there is none. */
@inline
function wayTo(side: i32, p: i32, x: i32): i32 {
  if (side == 0) return x + 1 < width ? 1 : 0;
  if (side == 1) return x > 0 ? -1 : 0;
  if (side == 2) return p + width < count ? width : 0;
  return p >= width ? -width : 0;
}

function cost(p: i32, x: i32, from: i32): i32 {
  let sum = difference(p, from);
  for (let side = 0; side < 4; side++) {
    const way = wayTo(side, p, x);
    if (!way) continue;
    const q = p + way;
    const open = load<u8>(hole + q);
    const other = open ? at32(sourceOf, q) : q;
    const mine = from + way;
    if (mine == other) continue;
    sum += allowed(mine) ? SEAM * difference(mine, other) : UNLIKE;
    if (!open) continue;
    const theirs = other - way;
    sum += allowed(theirs) ? SEAM * difference(theirs, from) : UNLIKE;
  }
  return sum;
}

/**
 * One sweep over the holes from..to, backwards or not. Of other holes only the labels of their neighbours are read.
 * @param changed a word a part, 1 when any label changed
 */
export function settle(
  levelPixels: usize,
  levelHole: usize,
  levelBanned: usize,
  holes: usize,
  labels: usize,
  levelWidth: i32,
  height: i32,
  backwards: i32,
  changed: usize,
  part: i32,
  from: i32,
  to: i32,
): void {
  pixels = levelPixels;
  hole = levelHole;
  banned = levelBanned;
  sourceOf = labels;
  width = levelWidth;
  count = width * height;
  let any = 0;
  for (let k = from; k < to; k++) {
    const p = at32(holes, backwards ? from + to - 1 - k : k);
    const x = p % width;
    const now = at32(sourceOf, p);
    let best = now;
    let least = -1;
    for (let side = 0; side < 4; side++) {
      const way = wayTo(side, p, x);
      if (!way || !load<u8>(hole + p + way)) continue;
      const candidate = at32(sourceOf, p + way) - way;
      if (candidate == best || !allowed(candidate)) continue;
      if (least < 0) least = cost(p, x, best);
      const c = cost(p, x, candidate);
      if (c < least) {
        least = c;
        best = candidate;
      }
    }
    if (best == now) continue;
    put32(sourceOf, p, best);
    any = 1;
  }
  put32(changed, part, any);
}
