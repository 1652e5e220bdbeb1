import type { Rect } from '../raster/rect.js';
import { grow, meets } from '../raster/rect.js';

/**
 * Sorts pieces that are to be done in order into waves: those of a wave lie apart from one another, and whatever comes
 * before a piece and lies near it is done before. So a piece finds what is near it as it would one by one, whichever of
 * its wave is done first.
 * @param near how far round a piece others count, px @returns the waves, first to be done first, each in the pieces' order
 */
export function wavesOf(pieces: readonly Rect[], near: number): Rect[][] {
  const side = Math.max(near, ...pieces.flatMap(({ width, height }) => [width, height]), 1);
  const placed = new Map<string, { readonly piece: Rect; readonly wave: number }[]>();
  const waves: Rect[][] = [];
  for (const piece of pieces) {
    const room = grow(piece, near);
    let wave = 0;
    for (const key of squaresOf(room, side))
      for (const other of placed.get(key) ?? [])
        if (meets(other.piece, room)) wave = Math.max(wave, other.wave + 1);
    for (const key of squaresOf(piece, side)) {
      const there = placed.get(key);
      if (there) there.push({ piece, wave });
      else placed.set(key, [{ piece, wave }]);
    }
    (waves[wave] ??= []).push(piece);
  }
  return waves;
}

/** Names of the squares of a raster of squares that a rectangle touches. */
function squaresOf({ x, y, width, height }: Rect, side: number): string[] {
  const found: string[] = [];
  for (let v = Math.floor(y / side); v <= Math.floor((y + height) / side); v++)
    for (let u = Math.floor(x / side); u <= Math.floor((x + width) / side); u++)
      found.push(`${u} ${v}`);
  return found;
}
