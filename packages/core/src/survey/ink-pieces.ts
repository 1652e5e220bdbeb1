import { depthsOf } from '../shape/depth.js';
import type { Piece } from './pieces.js';
import { piecesOf } from './pieces.js';

/** What a clear step is, levels. */
const STEP = 30;
/** Share of a piece's edge that must tell: where more of it borders what may be ink, the rest counts as unclear. */
const TOLD = 0.5;

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
    let [deepest, edge, open, clear, stray, heart] = [0, 0, 0, 0, 0, 0];
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
        if (room < 3 || like[next] || far < 0 || far >= like.length) continue;
        edge++;
        if (all[far]) continue;
        open++;
        if (off(far) >= STEP) clear++;
      }
    }
    const told = Math.max(open, TOLD * edge);
    return { piece, deepest, crisp: told ? clear / told : 0, stray: heart ? stray / heart : 0 };
  });
}
