import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import type { Edge } from './edges.js';
import { edgesBeside, HALF } from './edges.js';

/** A value a colour channel. */
type Colour = readonly number[];

/** An edge that runs into the site. */
export interface Entry extends Pick<Edge, 'at' | 'inward' | 'strength' | 'bend'> {
  /** Mean colours left and right of the way in, 0..255 a channel. */
  readonly sides: readonly [Colour, Colour];
  /** Clear and straight for a long way: it needs nobody to confirm it. */
  readonly sure: boolean;
}

/** Least step of luma, codes, between an edge's two sides. */
const LEAST_STEP = 14;
const SURE_STEP = 40;
/** How far outside the site edges are looked for, px, how far apart they are, and how many are taken. */
export const OUT = 4;
const APART = 7;
const MOST = 24;

/** The edges that run into a site, clearest first. @param hole 1 = site, one value a pixel of the window */
export function entriesOf(window: Raster, hole: Uint8Array): Entry[] {
  const found = edgesBeside(window, hole, OUT).filter(({ strength }) => strength >= LEAST_STEP);
  found.sort((a, b) => b.strength - a.strength);
  const kept: Edge[] = [];
  for (const edge of found) {
    const isNear = ({ at: [x, y] }: Edge): boolean =>
      Math.hypot(x - edge.at[0], y - edge.at[1]) <= APART;
    if (!kept.some(isNear)) kept.push(edge);
    if (kept.length === MOST) break;
  }
  return kept.map(({ from, straight, ...edge }) => {
    const [x, y] = edge.inward;
    const sides = [
      colourBeside(window, from, [y, -x]),
      colourBeside(window, from, [-y, x]),
    ] as const;
    return { ...edge, sides, sure: straight && edge.strength >= SURE_STEP };
  });
}

/** Mean colour of what lies on one side of a point, 0..255. */
function colourBeside({ width, channels, data }: Raster, [x, y]: Point, way: Point): Colour {
  const colour = new Array<number>(colourChannels(channels)).fill(0);
  const scale = 255 / whiteOf(data);
  for (let d = 2; d <= HALF; d++) {
    const p = Math.round(y + d * way[1]) * width + Math.round(x + d * way[0]);
    for (let c = 0; c < colour.length; c++)
      colour[c]! += (scale * data[p * channels + c]!) / (HALF - 1);
  }
  return colour;
}
