/** Pixels within half a width of a line with varying width, in reading order, clipped to the frame. */
export function strokePixels(
  line: {
    readonly xs: ArrayLike<number>;
    readonly ys: ArrayLike<number>;
    readonly widths: ArrayLike<number>;
  },
  frame: { readonly width: number; readonly height: number },
  more = 0,
): Int32Array {
  const { xs, ys, widths } = line;
  const seen = new Set<number>();
  const disc = (cx: number, cy: number, r: number): void => {
    for (let y = Math.max(0, Math.ceil(cy - r)); y <= Math.min(frame.height - 1, cy + r); y++) {
      const half = Math.sqrt(Math.max(0, r * r - (y - cy) ** 2));
      for (
        let x = Math.max(0, Math.ceil(cx - half));
        x <= Math.min(frame.width - 1, cx + half);
        x++
      )
        seen.add(y * frame.width + x);
    }
  };
  for (let i = 0; i < xs.length; i++) {
    const r = Math.max(0.75, (widths[i]! + more) / 2);
    disc(xs[i]!, ys[i]!, r);
    if (i + 1 === xs.length) break;
    const [dx, dy] = [xs[i + 1]! - xs[i]!, ys[i + 1]! - ys[i]!];
    const steps = Math.ceil(Math.hypot(dx, dy) / Math.max(0.5, r / 2));
    for (let k = 1; k < steps; k++) {
      const t = k / steps;
      disc(xs[i]! + t * dx, ys[i]! + t * dy, r + (t * (widths[i + 1]! - widths[i]!)) / 2);
    }
  }
  return Int32Array.from(seen).sort();
}
