import { medianOf } from '../raster/median.js';
import type { Piece } from './pieces.js';

/** Pieces longer than so many of their breadths and straight are parts of things, not of letters. */
const RULED = 16;
/** Where a piece reaches across this many of its breadths it winds, as a word does. */
const WINDS = 1.5;

/** Whether a piece is a long straight bar: its spread across is that of a bar so thick, and it does not wind about within it. */
export function isRuled({ pixels }: Piece, width: number, deepest: number): boolean {
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
