import type { Rect } from '../raster/rect.js';
import type { FindingKind } from './finding.js';

/** How far beyond a finding's pixels a repair reaches, so that no soft edge is left standing; px. */
export const MARGIN: Record<FindingKind, number> = {
  losses: 1,
  creases: 2,
  mesh: 1.5,
  wires: 2,
  ink: 1,
  specks: 1,
  lines: 1,
  stains: 4,
  pulls: 3,
};

/** The pixels of a finding and of the margin a repair needs, in reading order. @param soft how far its edges fade, px */
export function grownMask(
  pixels: Int32Array,
  box: Rect,
  frame: { readonly width: number; readonly height: number },
  kind: FindingKind,
  soft = 0,
): Int32Array {
  const margin = Math.ceil(MARGIN[kind] + soft);
  const [w, h] = [box.width + 2 * margin, box.height + 2 * margin];
  const local = new Uint8Array(w * h);
  for (const p of pixels)
    local[(Math.floor(p / frame.width) - box.y + margin) * w + (p % frame.width) - box.x + margin] =
      1;
  // A disc, row by row.
  const reach = Array.from({ length: 2 * margin + 1 }, (_, k) =>
    Math.floor(Math.sqrt(margin * margin - (k - margin) ** 2 + 0.5)),
  );
  const grown = new Uint8Array(w * h);
  for (let y = 0, p = 0; y < h; y++)
    for (let x = 0; x < w; x++, p++) {
      if (!local[p]) continue;
      for (let k = -margin; k <= margin; k++) {
        const row = y + k;
        if (row < 0 || row >= h) continue;
        const r = reach[k + margin]!;
        grown.fill(1, row * w + Math.max(0, x - r), row * w + Math.min(w - 1, x + r) + 1);
      }
    }
  const found: number[] = [];
  for (let p = 0; p < grown.length; p++) {
    if (!grown[p]) continue;
    const [x, y] = [(p % w) + box.x - margin, Math.floor(p / w) + box.y - margin];
    if (x >= 0 && y >= 0 && x < frame.width && y < frame.height) found.push(y * frame.width + x);
  }
  return Int32Array.from(found);
}
