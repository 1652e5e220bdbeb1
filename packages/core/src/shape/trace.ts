import type { Point } from './site.js';

/** Deviation the outline may have from the pixels' edges, px. */
const FINENESS = 0.7;

/**
 * The outer border of the part of a mask that holds a pixel, walked along pixel edges (crack following) and
 * simplified (Douglas, Peucker, 1973).
 * @param start a pixel inside
 */
export function traceOutline(mask: Uint8Array, width: number, start: number): Point[] {
  let p = start;
  while (p % width > 0 && mask[p - 1]) p--;
  const at = (x: number, y: number): boolean =>
    x >= 0 && y >= 0 && x < width && y * width + x < mask.length && mask[y * width + x] === 1;
  // Corners of pixels, walked with the inside on the right; directions are right, down, left, up.
  const dx = [1, 0, -1, 0];
  const dy = [0, 1, 0, -1];
  const x0 = p % width;
  const y0 = Math.floor(p / width);
  let x = x0;
  let y = y0 + 1;
  let d = 3;
  const corners: Point[] = [];
  const most = 4 * mask.length;
  for (let n = 0; n < most; n++) {
    corners.push([x - 0.5, y - 0.5]);
    x += dx[d]!;
    y += dy[d]!;
    // The two pixels ahead: left and right of the way on.
    const left = ahead(d, 0);
    const right = ahead(d, 1);
    if (right && left) d = (d + 3) % 4;
    else if (!right) d = (d + 1) % 4;
    if (x === x0 && y === y0 + 1 && d === 3) break;
  }
  return simplify(corners);

  function ahead(direction: number, side: 0 | 1): boolean {
    const px = [x, x - side, x - 1, x - 1 + side][direction]!;
    const py = [y - 1 + side, y, y - side, y - 1][direction]!;
    return at(px, py);
  }
}

/** A closed line with fewer corners. */
function simplify(line: readonly Point[]): Point[] {
  if (line.length < 4) return [...line];
  const half = line.length >> 1;
  const keep = new Uint8Array(line.length);
  keep[0] = keep[half] = 1;
  const ring = [...line, line[0]!];
  const stack: [number, number][] = [
    [0, half],
    [half, line.length],
  ];
  while (stack.length) {
    const [a, b] = stack.pop()!;
    let worst = 0;
    let most = FINENESS;
    for (let i = a + 1; i < b; i++) {
      const d = distance(ring[i]!, ring[a]!, ring[b]!);
      if (d <= most) continue;
      most = d;
      worst = i;
    }
    if (!worst) continue;
    keep[worst] = 1;
    stack.push([a, worst], [worst, b]);
  }
  return line.filter((_, i) => keep[i]);
}

function distance([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const ux = bx - ax;
  const uy = by - ay;
  const length2 = ux * ux + uy * uy;
  const t = length2 ? Math.min(1, Math.max(0, ((x - ax) * ux + (y - ay) * uy) / length2)) : 0;
  const ex = x - ax - t * ux;
  const ey = y - ay - t * uy;
  return Math.sqrt(ex * ex + ey * ey);
}
