/** A mask of so many pixels, 1 where asked; many times quicker than making one of another array value by value. */
export function maskWhere(count: number, isIn: (p: number) => boolean): Uint8Array {
  const mask = new Uint8Array(count);
  for (let p = 0; p < count; p++) if (isIn(p)) mask[p] = 1;
  return mask;
}
