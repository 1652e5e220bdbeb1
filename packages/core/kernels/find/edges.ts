// The edge through a point beside a site, followed back from it.

/** Half the window an edge is measured in, px. */
const HALF: i32 = 5;
/** Steps that an edge is followed back in, px, how many there are, and how far off each may lie. */
const STEP: f64 = 2;
const STEPS: i32 = 24;
const ASTRAY: i32 = 3;
/** Root mean square distance from its line up to which an edge is straight, px. */
const STRAY: f64 = 0.8;
/** Doubles that tell an edge. */
const TOLD: usize = 8 * 8;

/** Grey values, and what of them is unknown. */
@unmanaged
class Ground {
  grey: usize;
  hole: usize;
  width: i32;
  height: i32;
  /** Room for two doubles a step. */
  line: usize;
}

/** A direction that is found. */
let wayX: f64 = 0;
let wayY: f64 = 0;

@inline
function greyAt(ground: Ground, p: i32): f64 {
  return <f64>load<f32>(ground.grey + (<usize>p << 2));
}

@inline
function isIn(ground: Ground, p: i32): bool {
  return load<u8>(ground.hole + p) != 0;
}

@inline
function rounded(v: f64): i32 {
  return <i32>Math.floor(v + 0.5);
}

/**
 * Tells the edge through each of some points, eight doubles each: its strength, codes, 0 where there is none; where it
 * is; its way into the site; 1 where it is straight; how it bends.
 * @param points places and ways into the site, four doubles each
 */
export function edges(ground: Ground, points: usize, count: i32, out: usize): void {
  for (let k = 0; k < count; k++, points += 32, out += TOLD) {
    store<f64>(out, 0);
    const x = load<f64>(points);
    const y = load<f64>(points, 8);
    if (findWay(ground, <i32>x, <i32>y, load<f64>(points, 16), load<f64>(points, 24)))
      tell(ground, x, y, follow(ground, x, y), out);
  }
}

/** The way into the site along the edge at a place by its structure tensor (Forstner, Gulch 1987). @returns whether there is one */
function findWay(ground: Ground, x: i32, y: i32, inX: f64, inY: f64): bool {
  const width = ground.width;
  let xx: f64 = 0;
  let yy: f64 = 0;
  let xy: f64 = 0;
  for (let v = 1 - HALF; v < HALF; v++)
    for (let u = 1 - HALF; u < HALF; u++) {
      const p = (y + v) * width + x + u;
      // What reads the unknown does not count.
      if (isIn(ground, p) || isIn(ground, p + 1) || isIn(ground, p - 1)) continue;
      if (isIn(ground, p + width) || isIn(ground, p - width)) continue;
      const gx = (greyAt(ground, p + 1) - greyAt(ground, p - 1)) / 2;
      const gy = (greyAt(ground, p + width) - greyAt(ground, p - width)) / 2;
      xx += gx * gx;
      yy += gy * gy;
      xy += gx * gy;
    }
  const spread = Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy);
  if (spread < 0.6 * (xx + yy) || xx + yy < 1) return false;
  halve(xx - yy, 2 * xy);
  const across = wayX;
  wayX = -wayY;
  wayY = across;
  const into = wayX * inX + wayY * inY;
  if (into < 0) turnBack();
  return abs(into) >= 0.35;
}

/** The direction of half the angle of another. */
function halve(x: f64, y: f64): void {
  const length = Math.sqrt(x * x + y * y);
  const cosine = length > 0 ? x / length : 1;
  wayX = Math.sqrt((1 + cosine) / 2);
  wayY = Math.sqrt(max<f64>(0, 1 - cosine) / 2);
  if (y < 0) wayY = -wayY;
}

function turnBack(): void {
  wayX = -wayX;
  wayY = -wayY;
}

/** Lays down where the edge is steepest along its way out of the site. @returns how many steps it was followed for */
function follow(ground: Ground, x: f64, y: f64): i32 {
  const inX = wayX;
  const inY = wayY;
  let lastX = x;
  let lastY = y;
  let first: f64 = 0;
  let count = 0;
  while (count < STEPS) {
    const nx = wayY;
    const ny = -wayX;
    const px = lastX - STEP * wayX;
    const py = lastY - STEP * wayY;
    let best: f64 = -1;
    lastX = px;
    lastY = py;
    for (let k = -2 * ASTRAY; k <= 2 * ASTRAY; k++) {
      const u = px + (<f64>k / 2) * nx;
      const v = py + (<f64>k / 2) * ny;
      const s = steepness(ground, u, v, nx, ny) - 0.4 * <f64>abs(k);
      if (s <= best) continue;
      best = s;
      lastX = u;
      lastY = v;
    }
    if (!count) first = best;
    if (best < max<f64>(5, 0.4 * first)) break;
    const to = ground.line + (<usize>count << 4);
    store<f64>(to, lastX);
    store<f64>(to, lastY, 8);
    count++;
    if (count > 4) fitLine(ground, count, inX, inY);
  }
  wayX = inX;
  wayY = inY;
  if (count > 4) fitLine(ground, count, inX, inY);
  return count;
}

/** A sharp step is seen from as far as one looks: what is seen from near tells where it is. -1 where it meets the site. */
function steepness(ground: Ground, x: f64, y: f64, nx: f64, ny: f64): f64 {
  const wide = stepAt(ground, x, y, 1.5 * nx, 1.5 * ny);
  return wide < 0 ? wide : (2 * wide + stepAt(ground, x, y, 0.5 * nx, 0.5 * ny)) / 3;
}

/** The step between both sides of a point, -1 where either is unknown. */
function stepAt(ground: Ground, x: f64, y: f64, nx: f64, ny: f64): f64 {
  const a = placeOf(ground, rounded(x + nx), rounded(y + ny));
  const b = placeOf(ground, rounded(x - nx), rounded(y - ny));
  return a < 0 || b < 0 ? -1 : abs(greyAt(ground, a) - greyAt(ground, b));
}

/** A pixel's place in its window, -1 outside and in the site. */
@inline
function placeOf(ground: Ground, x: i32, y: i32): i32 {
  if (x < 0 || y < 0 || x >= ground.width || y >= ground.height) return -1;
  const p = y * ground.width + x;
  return isIn(ground, p) ? -1 : p;
}

/** Mean place of the line's points, or of what they are. */
function meanOf(ground: Ground, count: i32, word: usize): f64 {
  let sum: f64 = 0;
  for (let k = 0; k < count; k++) sum += load<f64>(ground.line + (<usize>k << 4) + word);
  return sum / <f64>count;
}

/** The way becomes that of the line of least squares through the points, pointing the way of another. */
function fitLine(ground: Ground, count: i32, likeX: f64, likeY: f64): void {
  const mx = meanOf(ground, count, 0);
  const my = meanOf(ground, count, 8);
  let xx: f64 = 0;
  let yy: f64 = 0;
  let xy: f64 = 0;
  for (let k = 0; k < count; k++) {
    const at = ground.line + (<usize>k << 4);
    const x = load<f64>(at) - mx;
    const y = load<f64>(at, 8) - my;
    xx += x * x;
    yy += y * y;
    xy += x * y;
  }
  halve(xx - yy, 2 * xy);
  if (wayX * likeX + wayY * likeY < 0) turnBack();
}

/** Tells an edge that was followed for so many steps: one followed too shortly as it was found. */
function tell(ground: Ground, x: f64, y: f64, count: i32, out: usize): void {
  store<f64>(out, abs(lumaBeside(ground, x, y, wayY, -wayX) - lumaBeside(ground, x, y, -wayY, wayX)));
  store<f64>(out, wayX, 24);
  store<f64>(out, wayY, 32);
  const isLong = count > 4;
  const mx = isLong ? meanOf(ground, count, 0) : x;
  const my = isLong ? meanOf(ground, count, 8) : y;
  // The line is fitted to all of the way back: the point is moved onto it.
  const off = isLong ? (x - mx) * wayY - (y - my) * wayX : 0;
  store<f64>(out, x - off * wayY, 8);
  store<f64>(out, y + off * wayX, 16);
  let astray: f64 = 0;
  let spread: f64 = 0;
  for (let k = 0; k < count; k++) {
    const at = ground.line + (<usize>k << 4);
    const left = (load<f64>(at) - mx) * wayY - (load<f64>(at, 8) - my) * wayX;
    const along = (load<f64>(at) - mx) * wayX + (load<f64>(at, 8) - my) * wayY;
    astray += left * left;
    spread += along * along;
  }
  const isStraight = count >= STEPS && Math.sqrt(astray / <f64>count) < STRAY;
  store<f64>(out, isStraight ? 1 : 0, 40);
  store<f64>(out, isLong ? bendOf(ground, count, mx, my, spread / <f64>count) : 0, 48);
}

/** Curvature of the points told along and to the left of their line: the parabola of least squares. */
function bendOf(ground: Ground, count: i32, mx: f64, my: f64, spread: f64): f64 {
  let up: f64 = 0;
  let under: f64 = 0;
  for (let k = 0; k < count; k++) {
    const at = ground.line + (<usize>k << 4);
    const left = (load<f64>(at) - mx) * wayY - (load<f64>(at, 8) - my) * wayX;
    const along = (load<f64>(at) - mx) * wayX + (load<f64>(at, 8) - my) * wayY;
    const more = along * along - spread;
    up += left * more;
    under += more * more;
  }
  return under > 0 ? (2 * up) / under : 0;
}

/** Mean luma of what lies on one side of a point. */
function lumaBeside(ground: Ground, x: f64, y: f64, nx: f64, ny: f64): f64 {
  let luma: f64 = 0;
  for (let d = 2; d <= HALF; d++) {
    const p = rounded(y + <f64>d * ny) * ground.width + rounded(x + <f64>d * nx);
    luma += greyAt(ground, p) / <f64>(HALF - 1);
  }
  return luma;
}
