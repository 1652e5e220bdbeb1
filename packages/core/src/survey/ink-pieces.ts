import { depthsOf } from '../shape/depth.js';
import type { Piece } from './pieces.js';
import { piecesOf } from './pieces.js';

/** What a clear step is, levels. */
const STEP = 30;

/** A piece, how deep it is, px, the share of its edge that is a clear step, and how far its heart strays, levels. */
export interface Judged {
  readonly piece: Piece;
  readonly deepest: number;
  readonly crisp: number;
  readonly stray: number;
}

/**
 * Judges the pieces of a mask.
 * @param all what may be of the ink: an edge against it tells nothing
 * @param off how far a pixel is from the ink's colour, levels
 */
export function judged(
  like: Uint8Array,
  all: Uint8Array,
  off: (p: number) => number,
  width: number,
  height: number,
): Judged[] {
  const depths = depthsOf(like, width, height);
  return piecesOf(like, width).map((piece): Judged => {
    let [deepest, edge, clear, stray, heart] = [0, 0, 0, 0, 0];
    for (const p of piece.pixels) {
      deepest = Math.max(deepest, depths[p]!);
      if (depths[p]! > 1) {
        stray += off(p);
        heart++;
        continue;
      }
      const x = p % width;
      for (const [step, room] of [
        [1, width - 1 - x],
        [-1, x],
        [width, height],
        [-width, height],
      ] as const) {
        const [next, far] = [p + step, p + 3 * step];
        if (room < 3 || all[next] || all[far]) continue;
        if (far < 0 || far >= like.length) continue;
        edge++;
        if (off(far) >= STEP) clear++;
      }
    }
    return { piece, deepest, crisp: edge ? clear / edge : 0, stray: heart ? stray / heart : 0 };
  });
}
