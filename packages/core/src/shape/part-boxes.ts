import type { Rect } from '../raster/rect.js';

/** Stretches of set pixels in the rows, and which part each belongs to. */
interface Runs {
  readonly row: number[];
  readonly from: number[];
  /** One past the last. */
  readonly to: number[];
  /** A run of the same part, nearer to its first one; the first one points at itself. */
  readonly part: number[];
}

/** Boxes of the unconnected parts of a mask, corners joining, in the reading order of their first pixels. */
export function partBoxes(mask: Uint8Array, width: number): Rect[] {
  const { row, from, to, part } = runsOf(mask, width);
  const boxes = new Map<number, { left: number; right: number; top: number; bottom: number }>();
  for (let k = 0; k < row.length; k++) {
    const first = firstOf(part, k);
    const box = boxes.get(first);
    if (!box) {
      boxes.set(first, { left: from[k]!, right: to[k]!, top: row[k]!, bottom: row[k]! });
      continue;
    }
    box.left = Math.min(box.left, from[k]!);
    box.right = Math.max(box.right, to[k]!);
    box.bottom = row[k]!;
  }
  return Array.from(boxes.values(), ({ left, right, top, bottom }) => ({
    x: left,
    y: top,
    width: right - left,
    height: bottom - top + 1,
  }));
}

function runsOf(mask: Uint8Array, width: number): Runs {
  const runs: Runs = { row: [], from: [], to: [], part: [] };
  let [above, begin] = [0, 0];
  let y = -1;
  for (let p = mask.indexOf(1); p >= 0; p = mask.indexOf(1, p)) {
    if (Math.floor(p / width) !== y) {
      y = Math.floor(p / width);
      [above, begin] = [begin, runs.row.length];
    }
    const start = p;
    const end = (y + 1) * width;
    while (p < end && mask[p]) p++;
    add(runs, y, start - y * width, p - y * width, above, begin);
  }
  return runs;
}

/** Adds a run and joins it with those of the row above that it touches. */
function add(
  { row, from, to, part }: Runs,
  y: number,
  start: number,
  end: number,
  above: number,
  begin: number,
): void {
  const k = row.length;
  row.push(y);
  from.push(start);
  to.push(end);
  part.push(k);
  for (let j = above; j < begin && from[j]! <= end; j++) {
    if (row[j] !== y - 1 || to[j]! < start) continue;
    const [a, b] = [firstOf(part, j), firstOf(part, k)];
    part[Math.max(a, b)] = Math.min(a, b);
  }
}

function firstOf(part: number[], k: number): number {
  let first = k;
  while (part[first] !== first) first = part[first]!;
  part[k] = first;
  return first;
}
