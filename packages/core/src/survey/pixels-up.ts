interface Frame {
  readonly width: number;
  readonly height: number;
}

/** The pixels of a picture under those of one of its halvings, in reading order. @param width px of the halving */
export function pixelsUp(
  pixels: Int32Array,
  width: number,
  level: number,
  frame: Frame,
): Int32Array {
  if (level === 0) return pixels;
  const side = 1 << level;
  const found = new Int32Array(pixels.length * side * side);
  let count = 0;
  for (const p of pixels) {
    const [x, y] = [(p % width) * side, Math.floor(p / width) * side];
    for (let v = y; v < Math.min(frame.height, y + side); v++)
      for (let u = x; u < Math.min(frame.width, x + side); u++)
        found[count++] = v * frame.width + u;
  }
  return found.subarray(0, count).sort();
}
