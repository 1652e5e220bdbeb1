import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { deepestIn } from '../shape/depth.js';

/** Of sites no deeper than the first, px, surroundings say much; at the second nothing that copies do not say better. */
export const [NARROW, DEEP] = [16, 24];
/** Sites no deeper than this are slender, px. */
const SLENDER = 8;

/** How narrow a site is, place by place: a place is as deep as the deepest of its square and those round it. */
export class Narrowness {
  /** Squares across and down, and how deep each is with those round it, px. */
  readonly wide: number;
  readonly high: number;
  readonly deepest: Float32Array;

  /** @param site 1 = inside, a value a pixel of the picture */
  constructor(
    site: Uint8Array,
    private readonly picture: Pick<Raster, 'width' | 'height'>,
  ) {
    const { width, height } = picture;
    this.wide = Math.ceil(width / DEEP);
    this.high = Math.ceil(height / DEEP);
    this.deepest = this.spread(deepestIn(site, width, height, DEEP));
  }

  /** Whether a site is slender all over a piece. */
  isSlender({ x, y, width, height }: Rect): boolean {
    for (let v = y; v < y + height + DEEP; v += DEEP)
      for (let u = x; u < x + width + DEEP; u += DEEP)
        if (this.deepest[this.squareAt(u, v)]! > SLENDER) return false;
    return true;
  }

  /** What is left of a site where it is deep is taken out of it. */
  leaveDeep(site: Uint8Array): void {
    const { width, height } = this.picture;
    for (let v = 0; v < this.high; v++) {
      const deep = this.deepSquares(v);
      for (let y = v * DEEP; y < Math.min(height, (v + 1) * DEEP); y++)
        for (const [from, to] of deep)
          site.fill(0, y * width + from * DEEP, y * width + Math.min(width, to * DEEP));
    }
  }

  /** Stretches of deep squares in a row of them. */
  private deepSquares(v: number): (readonly [from: number, to: number])[] {
    const found: (readonly [number, number])[] = [];
    const isDeep = (k: number): boolean => narrownessOf(this.deepest[v * this.wide + k]!) <= 0;
    for (let k = 0; k < this.wide; k++) {
      const from = k;
      while (k < this.wide && isDeep(k)) k++;
      if (k > from) found.push([from, k]);
    }
    return found;
  }

  /** Number of the square of a place: those beyond the picture are its nearest one's. */
  squareAt(x: number, y: number): number {
    const { width, height } = this.picture;
    const u = Math.min(width - 1, Math.max(0, x));
    const v = Math.min(height - 1, Math.max(0, y));
    return Math.floor(v / DEEP) * this.wide + Math.floor(u / DEEP);
  }

  /** Has every square take the greatest value of its own and of those round it. */
  private spread(values: Float32Array): Float32Array {
    const { wide, high } = this;
    const out = new Float32Array(values.length);
    for (let y = 0; y < high; y++)
      for (let x = 0; x < wide; x++)
        for (let v = Math.max(0, y - 1); v <= Math.min(high - 1, y + 1); v++)
          for (let u = Math.max(0, x - 1); u <= Math.min(wide - 1, x + 1); u++)
            out[y * wide + x] = Math.max(out[y * wide + x]!, values[v * wide + u]!);
    return out;
  }
}

/** 1 = narrow, 0 = deep. */
export function narrownessOf(depth: number): number {
  return Math.min(1, Math.max(0, (DEEP - depth) / (DEEP - NARROW)));
}
