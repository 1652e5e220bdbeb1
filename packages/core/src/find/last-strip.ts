import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';

/** px at the left and right border that say whether background is left beside a thing. */
const STRIP = 8;
/** px of a thing that say what it looks like. */
const SEEN = 6;
/** px that it must reach into a strip: its border is mixed with the background. */
const DEEP = 4;
/** Share of its squared difference from the background up to which a pixel is the thing's. */
const NEARER = 0.5;

/**
 * What of the last strips at the left and right border is the subject's: row by row where the subject comes up to a strip,
 * pixels that hang on to it and look like it rather than like the background that the strip shows in rows where nothing
 * stands near. The rest of the strips is left free.
 * @param subject as it was found, without a margin @param wide with its margin; its strips are set
 */
export function settleStrips(picture: Raster, subject: Uint8Array, wide: Uint8Array): void {
  const { width, height } = picture;
  for (const from of [0, width - STRIP]) {
    const inward = from === 0 ? 1 : -1;
    /** px of a row, counted from the strip's inner end inwards, or outwards below 0. */
    const at = (y: number, k: number): number =>
      y * width + (from === 0 ? STRIP : width - STRIP - 1) + inward * k;
    const near = Uint8Array.from({ length: height }, (_, y) => (wide[at(y, 0)] ? 1 : 0));
    const ground = backgroundOf(picture, near, at);
    for (let y = 0; y < height; y++) {
      for (let k = 1; k <= STRIP; k++) wide[at(y, -k)] = subject[at(y, -k)]!;
      const first = near[y] ? firstOf(subject, y, at) : -1;
      const behind = first < 0 ? null : ground(y);
      if (!behind) continue;
      const own = meanOf(
        picture,
        Array.from({ length: SEEN }, (_, k) => at(y, first + k)),
      );
      let last = first;
      while (last > -STRIP) {
        const p = at(y, last - 1);
        if (apart(picture, p, own) >= NEARER * apart(picture, p, behind)) break;
        last--;
      }
      if (last <= -DEEP) for (let k = last; k < first; k++) wide[at(y, k)] = 1;
    }
  }
}

type At = (y: number, k: number) => number;

/** How far from the strip the subject begins; -1 where it is not near. */
function firstOf(subject: Uint8Array, y: number, at: At): number {
  for (let k = 0; k < 4 * STRIP; k++) if (subject[at(y, k)]) return k;
  return -1;
}

/** The strip's mean in the nearest rows, above and below, in which nothing stands near. */
function backgroundOf(picture: Raster, near: Uint8Array, at: At) {
  const row = (y: number): number[] =>
    meanOf(
      picture,
      Array.from({ length: STRIP }, (_, k) => at(y, -1 - k)),
    );
  return (y: number): number[] | null => {
    let [above, below] = [y, y];
    while (above >= 0 && near[above]) above--;
    while (below < near.length && near[below]) below++;
    const rows = [above, below].filter((v) => v >= 0 && v < near.length).map(row);
    if (!rows.length) return null;
    return rows[0]!.map((_, c) => rows.reduce((sum, r) => sum + r[c]!, 0) / rows.length);
  };
}

function meanOf({ channels, data }: Raster, places: readonly number[]): number[] {
  return Array.from({ length: Math.min(3, channels) }, (_, c) =>
    places.reduce((sum, p) => sum + data[p * channels + c]! / places.length, 0),
  );
}

/** Squared difference, 8-bit codes. */
function apart({ channels, data }: Raster, p: number, colour: readonly number[]): number {
  const scale = 255 / whiteOf(data);
  return colour.reduce((sum, v, c) => sum + ((data[p * channels + c]! - v) * scale) ** 2, 0);
}
