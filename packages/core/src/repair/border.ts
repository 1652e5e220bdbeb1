import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { DonorInput } from './clone.js';

/**
 * The border of a site as pairs of neighbouring pixels, one inside and one outside, and what picture and donor
 * hold there, 0..255 a channel.
 */
export interface Border {
  readonly count: number;
  /** Window pixel inside and outside of each pair. */
  readonly inside: Int32Array;
  readonly outside: Int32Array;
  /** Three values a pair: the picture just outside. */
  readonly picture: Float64Array;
  /** Three values a pair: the donor there, or its nearest pixel inside where it ends with the site. */
  readonly donor: Float64Array;
}

/** Lists the border of the pixels marked in `site`. Where the picture ends there is no pair. */
export function borderOf({ below, donor, valid }: DonorInput, site: Uint8Array): Border {
  const { width, height } = below;
  const inside: number[] = [];
  const outside: number[] = [];
  const pair = (p: number, q: number): void => {
    if (site[q] !== 0) return;
    inside.push(p);
    outside.push(q);
  };
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      if (site[p] !== 1) continue;
      if (x + 1 < width) pair(p, p + 1);
      if (x > 0) pair(p, p - 1);
      if (y + 1 < height) pair(p, p + width);
      if (y > 0) pair(p, p - width);
    }
  }
  const count = inside.length;
  const picture = new Float64Array(3 * count);
  const donors = new Float64Array(3 * count);
  for (let k = 0; k < count; k++) {
    const q = outside[k]!;
    read(below, q, picture, 3 * k);
    read(donor, valid[q] ? q : inside[k]!, donors, 3 * k);
  }
  return {
    count,
    inside: Int32Array.from(inside),
    outside: Int32Array.from(outside),
    picture,
    donor: donors,
  };
}

function read({ channels, data }: Raster, p: number, to: Float64Array, at: number): void {
  const scale = 255 / whiteOf(data);
  const colours = colourChannels(channels);
  for (let c = 0; c < 3; c++) to[at + c] = data[p * channels + (c < colours ? c : 0)]! * scale;
}
