import type { Affine } from '../raster/affine.js';
import type { Point } from '../shape/site.js';
import { turnOf } from '../shape/turn.js';

/** How a donor's pixels are laid onto the site: taken from its place, mirrored, scaled, then turned. */
export interface DonorPlacement {
  /** Middle of the donor minus middle of the site, px. */
  readonly dx: number;
  readonly dy: number;
  /** Degrees the donor's content is turned counter-clockwise on screen. @default 0 */
  readonly turn?: number;
  /** Left and right exchanged. @default false */
  readonly mirrorX?: boolean;
  /** Top and bottom exchanged. @default false */
  readonly mirrorY?: boolean;
  /** Size the donor's content has in the site, 0.25..4 times its own. @default 1 */
  readonly scale?: number;
}

/** Bounds of {@link DonorPlacement.scale}. */
export const SCALE_LIMITS = { least: 0.25, most: 4 } as const;

/**
 * Where each site pixel takes its content from, as a map of picture points. Shifts, mirrors and turns by right
 * angles at scale 1 map pixel centres onto pixel centres whenever dx and dy are whole, so that copies are exact.
 * @param middle middle of the site
 */
export function placementMap(placement: DonorPlacement, middle: Point): Affine {
  const { dx, dy, turn = 0, mirrorX = false, mirrorY = false, scale = 1 } = placement;
  const { cos, sin } = turnOf(turn);
  const across = (mirrorX ? -1 : 1) / scale;
  const along = (mirrorY ? -1 : 1) / scale;
  const a = plain(across * cos);
  const b = plain(-across * sin);
  const d = plain(along * sin);
  const e = plain(along * cos);
  const right = [a, b, d, e].every(Number.isInteger);
  const settle = (v: number, by: number): number =>
    right && Number.isInteger(by) ? Math.floor(v + 0.5) : v;
  return {
    a,
    b,
    c: settle(middle[0] + dx - a * middle[0] - b * middle[1], dx),
    d,
    e,
    f: settle(middle[1] + dy - d * middle[0] - e * middle[1], dy),
  };
}

function plain(value: number): number {
  return value === 0 ? 0 : value;
}
