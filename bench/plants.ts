import type { Raster, TellKind } from '@tersum/core';
import type { seededRandom } from '@tersum/core';
import { blurred, ciede2000, labOfSrgb } from '@tersum/core';

export type Random = ReturnType<typeof seededRandom>;
type Plant = (picture: Raster, site: Int32Array, random: Random) => Raster;

/** What is planted, and by which tell it should be found. */
export const PLANTS: Record<string, { kind: TellKind; plant: Plant }> = {
  'tone step of 4 CIEDE2000': { kind: 'tone', plant: stepped },
  'seam that fades inward over 4 px': {
    kind: 'seam',
    plant: (picture, site) => {
      const inside = new Set(site);
      const depth = (p: number): number => {
        for (let d = 1; d < 12; d++)
          for (const q of [p - d, p + d, p - d * picture.width, p + d * picture.width])
            if (!inside.has(q)) return d;
        return 12;
      };
      return altered(picture, site, (v, p) => v + 10 * Math.exp(-(depth(p) - 1) / 4));
    },
  },
  'blur of 1.5 px': {
    kind: 'softness',
    plant: (picture, site) => smoothed(picture, site, 1.5, 99),
  },
  'grain removed': { kind: 'grain', plant: (picture, site) => smoothed(picture, site, 0.9, 6) },
  'speck of 2 to 4 px left': { kind: 'leftover', plant: dusty },
  'patch copied within sight': {
    kind: 'repeat',
    plant: (picture, site, random) => {
      const by = shiftWithin(picture, site, random);
      return altered(picture, site, (_, p, c) => picture.data[(p + by) * picture.channels + c]!);
    },
  },
};

/** Mean square slope of what counts as a clear line, codes a px. */
const LINE = 60;
/** A line's site, and which way is across it. */
export interface Crossing {
  readonly site: Int32Array;
  readonly across: readonly [number, number];
}

/** Sites that a clear line crosses: about one in each of many places by chance. */
export function crossings(picture: Raster, random: Random, most: number): Crossing[] {
  const { width, height, channels, data } = picture;
  const grey = new Float32Array(width * height);
  for (let p = 0; p < grey.length; p++)
    grey[p] =
      channels < 3
        ? data[p * channels]!
        : 0.299 * data[p * channels]! +
          0.587 * data[p * channels + 1]! +
          0.114 * data[p * channels + 2]!;
  const { values } = blurred({ width, height, values: grey }, 1);
  /** Direction across, or null where no line of the length runs straight. */
  const lineAt = (cx: number, cy: number): readonly [number, number] | null => {
    let [xx, xy, yy] = [0, 0, 0];
    for (let y = cy - 8; y <= cy + 8; y++)
      for (let x = cx - 8; x <= cx + 8; x++) {
        const p = y * width + x;
        const gx = (values[p + 1]! - values[p - 1]!) / 2;
        const gy = (values[p + width]! - values[p - width]!) / 2;
        xx += gx * gx;
        xy += gx * gy;
        yy += gy * gy;
      }
    const root = Math.sqrt((xx - yy) ** 2 + 4 * xy * xy);
    if (root < 0.9 * (xx + yy) || xx + yy < 17 * 17 * LINE) return null;
    const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
    return [Math.cos(angle), Math.sin(angle)];
  };
  const found: Crossing[] = [];
  for (let tries = 0; tries < 40_000 && found.length < most; tries++) {
    const [cx, cy] = [random.between(70, width - 70), random.between(70, height - 70)];
    const across = lineAt(cx, cy);
    if (!across) continue;
    const r = random.between(12, 26);
    // The line has to leave the site on both sides.
    const along = [-across[1], across[0]] as const;
    const ends = [-r, r].map((t) =>
      lineAt(Math.round(cx + t * along[0]), Math.round(cy + t * along[1])),
    );
    if (ends.some((e) => !e || Math.abs(e[0] * across[0] + e[1] * across[1]) < 0.97)) continue;
    const pixels: number[] = [];
    for (let y = cy - r; y <= cy + r; y++)
      for (let x = cx - r; x <= cx + r; x++)
        if ((x - cx) ** 2 + (y - cy) ** 2 <= r * r) pixels.push(y * width + x);
    found.push({ site: Int32Array.from(pixels), across });
  }
  return found;
}

/** What lies in a site moved by so many px. */
export function moved(picture: Raster, { site, across: [ax, ay] }: Crossing, px: number): Raster {
  const { width, channels, data } = picture;
  return altered(picture, site, (_, p, c) => {
    const [x, y] = [(p % width) - px * ax, Math.floor(p / width) - px * ay];
    const [x0, y0] = [Math.floor(x), Math.floor(y)];
    const at = (u: number, v: number): number => data[(v * width + u) * channels + c]!;
    const top = at(x0, y0) + (x - x0) * (at(x0 + 1, y0) - at(x0, y0));
    const low = at(x0, y0 + 1) + (x - x0) * (at(x0 + 1, y0 + 1) - at(x0, y0 + 1));
    return top + (y - y0) * (low - top);
  });
}

/** A site made lighter or darker by 4 CIEDE2000 at its mean colour. */
function stepped(picture: Raster, site: Int32Array): Raster {
  const { channels, data } = picture;
  const at = (p: number, c: number): number => data[p * channels + (channels < 3 ? 0 : c)]!;
  const means = [0, 1, 2].map((c) => site.reduce((sum, p) => sum + at(p, c), 0) / site.length);
  const lab = (by: number) =>
    labOfSrgb(...(means.map((m) => (m + by) / 255) as [number, number, number]));
  const way = means[1]! > 200 ? -1 : 1;
  let by = 0;
  while (ciede2000(lab(0), lab(way * by)) < 4) by += 0.25;
  return altered(picture, site, (v) => v + way * by);
}

/** A speck of dust within a site, of the tone that is further from its place. */
function dusty(picture: Raster, site: Int32Array, random: Random): Raster {
  const { width } = picture;
  const middle = site[site.length >> 1]!;
  const [cx, cy] = [middle % width, Math.floor(middle / width)];
  const r = random.between(2, 4);
  const dark = picture.data[middle * picture.channels]! > 128;
  return altered(picture, site, (v, p) => {
    const far = Math.hypot((p % width) - cx, Math.floor(p / width) - cy);
    const cover = Math.max(0, Math.min(1, r + 0.5 - far));
    return v + cover * ((dark ? 30 : 235) - v);
  });
}

/** A shift of 130 to 200 px that leaves a site within the picture. */
function shiftWithin({ width, height }: Raster, site: Int32Array, random: Random): number {
  const xs = site.map((p) => p % width);
  const ys = site.map((p) => Math.floor(p / width));
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  for (;;) {
    const angle = random.between(0, 628) / 100;
    const far = random.between(130, 200);
    const [dx, dy] = [Math.round(Math.cos(angle) * far), Math.round(Math.sin(angle) * far)];
    if (left + dx >= 0 && right + dx < width && top + dy >= 0 && bottom + dy < height)
      return dx + dy * width;
  }
}

function altered(
  picture: Raster,
  site: Int32Array,
  by: (v: number, p: number, c: number) => number,
): Raster {
  const data = picture.data.slice();
  for (const p of site)
    for (let c = 0; c < Math.min(3, picture.channels); c++) {
      const i = p * picture.channels + c;
      data[i] = Math.max(0, Math.min(255, Math.round(by(picture.data[i]!, p, c))));
    }
  return { ...picture, data };
}

/** Deviations from a blur taken off, those over `most` codes only in part. */
function smoothed(picture: Raster, site: Int32Array, sigma: number, most: number): Raster {
  const { width, height, channels, data } = picture;
  const soft = Array.from({ length: Math.min(3, channels) }, (_, c) => {
    const values = new Float32Array(width * height);
    for (let p = 0; p < values.length; p++) values[p] = data[p * channels + c]!;
    return blurred({ width, height, values }, sigma).values;
  });
  return altered(picture, site, (v, p, c) => {
    const off = v - soft[c]![p]!;
    return v - Math.max(-most, Math.min(most, off));
  });
}
