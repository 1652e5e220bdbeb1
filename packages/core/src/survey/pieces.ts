/** A piece of a mask: pixels that touch. */
export interface Piece {
  readonly pixels: Int32Array;
  /** First and last column and row. */
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Pieces of a mask by their sides and corners, in reading order of their first pixels; pixels in no order. */
export function piecesOf(mask: Uint8Array, width: number, height: number): Piece[] {
  const seen = new Uint8Array(mask.length);
  const pieces: Piece[] = [];
  const stack: number[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (!mask[start] || seen[start]) continue;
    const pixels: number[] = [];
    let [left, top, right, bottom] = [width, height, 0, 0];
    seen[start] = 1;
    stack.push(start);
    while (stack.length) {
      const p = stack.pop()!;
      pixels.push(p);
      const [x, y] = [p % width, (p / width) | 0];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          const q = v * width + u;
          if (!mask[q] || seen[q]) continue;
          seen[q] = 1;
          stack.push(q);
        }
    }
    pieces.push({ pixels: Int32Array.from(pixels), left, top, right, bottom });
  }
  return pieces;
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
