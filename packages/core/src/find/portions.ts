import type { Point } from '../shape/site.js';
import { partsOf } from '../shape/parts.js';
import { traceOutline } from '../shape/trace.js';
import { maskWhere } from '../shape/mask-where.js';

/** Portions smaller than this share of the site join a neighbour. */
const SMALLEST = 0.06;
/** Sites this much longer than broad are cut across when they lie on one ground. */
const LONG = 1.6;

/**
 * Cuts a site into portions to be filled one after the other: every site pixel goes with the ground that is nearest to
 * it, so that cuts run where grounds meet; a long site on one ground is cut across. Portions come in the order in which
 * they are best filled: the one with the most known border for its size first.
 * @param site 1 = site, one value a pixel of the window
 * @param labels the ground of every other pixel, -1 for none
 * @returns outlines in the window's coordinates, each a pixel wider than its portion, so that nothing is left between
 */
export function cutPortions(
  site: Uint8Array,
  labels: Int8Array,
  width: number,
): (readonly Point[])[] {
  const height = site.length / width;
  const owner = nearestLabels(site, labels, width, height);
  const area = site.reduce((n, v) => n + v, 0);
  let masks = [...new Set(owner.filter((_, p) => site[p]))].flatMap((label) =>
    partsOf(
      maskWhere(owner.length, (p) => site[p] === 1 && owner[p] === label),
      width,
    ),
  );
  masks = joinSmall(masks, SMALLEST * area, width, site.length);
  if (masks.length === 1) masks = cutAcross(masks[0]!, width);
  return masks
    .map((part) => ({ part, known: knownBorder(part, site, width, height) }))
    .sort((a, b) => b.known - a.known)
    .map(({ part }) => {
      const mask = new Uint8Array(site.length);
      for (const p of part) mask[p] = 1;
      return traceOutline(widened(mask, site, width, height), width, part[0]!);
    });
}

/** The label nearest to every pixel, spread breadth first from the ring. */
function nearestLabels(
  site: Uint8Array,
  labels: Int8Array,
  width: number,
  height: number,
): Int8Array {
  const owner = labels.slice();
  let front: number[] = [];
  for (let p = 0; p < site.length; p++) if (labels[p]! >= 0) front.push(p);
  while (front.length) {
    const next: number[] = [];
    for (const p of front)
      for (const q of besides(p, width, height))
        if (site[q] && owner[q]! < 0) {
          owner[q] = owner[p]!;
          next.push(q);
        }
    front = next;
  }
  return owner;
}

function joinSmall(
  parts: readonly Int32Array[],
  least: number,
  width: number,
  pixels: number,
): Int32Array[] {
  const all = [...parts].sort((a, b) => b.length - a.length);
  while (all.length > 1 && all[all.length - 1]!.length < least) {
    const small = all.pop()!;
    const owner = new Int16Array(pixels).fill(-1);
    all.forEach((part, k) => part.forEach((p) => (owner[p] = k)));
    const touching = new Map<number, number>();
    for (const p of small)
      for (const q of besides(p, width, pixels / width))
        if (owner[q]! >= 0) touching.set(owner[q]!, (touching.get(owner[q]!) ?? 0) + 1);
    const [to] = [...touching].sort((a, b) => b[1] - a[1])[0] ?? [0];
    all[to] = Int32Array.from([...all[to]!, ...small]).sort();
    all.sort((a, b) => b.length - a.length);
  }
  return all;
}

function cutAcross(part: Int32Array, width: number): Int32Array[] {
  const xs = Array.from(part, (p) => p % width);
  const ys = Array.from(part, (p) => Math.floor(p / width));
  const [left, right] = [Math.min(...minmax(xs)), Math.max(...minmax(xs))];
  const [top, bottom] = [Math.min(...minmax(ys)), Math.max(...minmax(ys))];
  const [w, h] = [right - left + 1, bottom - top + 1];
  const count = Math.round(Math.max(w, h) / Math.max(1, Math.min(w, h)));
  if (Math.max(w, h) < LONG * Math.min(w, h) || count < 2) return [part];
  const pieces = Math.min(6, count);
  const along = w > h ? xs.map((x) => (x - left) / w) : ys.map((y) => (y - top) / h);
  return Array.from({ length: pieces }, (_, k) =>
    part.filter((_p, i) => Math.min(pieces - 1, Math.floor(along[i]! * pieces)) === k),
  ).filter((piece) => piece.length > 0);
}

function minmax(values: readonly number[]): [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (const v of values) {
    if (v < least) least = v;
    if (v > most) most = v;
  }
  return [least, most];
}

/** Share of the portion's border that lies on known ground. */
function knownBorder(part: Int32Array, site: Uint8Array, width: number, height: number): number {
  const mine = new Set(part);
  let known = 0;
  let all = 0;
  for (const p of part)
    for (const q of besides(p, width, height)) {
      if (mine.has(q)) continue;
      all++;
      if (!site[q]) known++;
    }
  return all ? known / all : 0;
}

function widened(mask: Uint8Array, site: Uint8Array, width: number, height: number): Uint8Array {
  const wide = mask.slice();
  for (let p = 0; p < mask.length; p++)
    if (mask[p]) for (const q of besides(p, width, height)) if (site[q]) wide[q] = 1;
  return wide;
}

function besides(p: number, width: number, height: number): number[] {
  const x = p % width;
  const list: number[] = [];
  if (x > 0) list.push(p - 1);
  if (x + 1 < width) list.push(p + 1);
  if (p >= width) list.push(p - width);
  if (p + width < width * height) list.push(p + width);
  return list;
}
