import { partsOf } from '../shape/parts.js';

/** A piece of a mask: pixels that touch, in reading order. */
export interface Piece {
  readonly pixels: Int32Array;
  /** First and last column and row. */
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Pieces of a mask by their sides and corners, in reading order of their first pixels. */
export function piecesOf(mask: Uint8Array, width: number): Piece[] {
  return partsOf(mask, width).map((pixels) => {
    let [left, right] = [width, 0];
    for (const p of pixels) {
      const x = p % width;
      left = Math.min(left, x);
      right = Math.max(right, x);
    }
    const top = Math.floor(pixels[0]! / width);
    const bottom = Math.floor(pixels[pixels.length - 1]! / width);
    return { pixels, left, top, right, bottom };
  });
}

/** Pieces gathered so that those whose boxes come within `gap` px of each other are together. */
export function gathered(pieces: readonly Piece[], gap: number): Piece[][] {
  const group = pieces.map((_, i) => i);
  const rootOf = (i: number): number => {
    while (group[i] !== i) i = group[i]!;
    return i;
  };
  for (let i = 0; i < pieces.length; i++)
    for (let j = 0; j < i; j++) {
      const [a, b] = [pieces[i]!, pieces[j]!];
      const apart = Math.max(
        a.left - b.right,
        b.left - a.right,
        a.top - b.bottom,
        b.top - a.bottom,
      );
      if (apart <= gap) group[rootOf(i)] = rootOf(j);
    }
  const groups = new Map<number, Piece[]>();
  pieces.forEach((piece, i) => {
    const root = rootOf(i);
    const list = groups.get(root);
    if (list) list.push(piece);
    else groups.set(root, [piece]);
  });
  return [...groups.values()];
}
