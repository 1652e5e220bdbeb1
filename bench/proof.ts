import type { Raster } from '@tersum/core';
import { blurred, crop, seededRandom, tellsOf, TELL_LIMITS } from '@tersum/core';
import type { TellKind } from '@tersum/core';
import { demoPicture, openPicture } from './pictures.js';

const OPEN = ['acanthus-mollis', 'french-alpine-landscape'] as const;
const DEMO = [
  'mesh-truth.jpg',
  'quay-print-truth.jpg',
  'wires-truth-no-wires.jpg',
  'head-truth.jpg',
];
/** Random sites a megapixel. */
const DENSITY = 12;
/** Sites a megapixel to which the bar of false alarms is taken to apply. */
const USUAL = 6;
/** Sites a picture in which each kind is planted. */
const PLANTED = 6;
/** Most px of a side: the middle of larger pictures is taken. */
const SIDE = 900;

type Plant = (picture: Raster, site: Int32Array, random: ReturnType<typeof seededRandom>) => Raster;

/** What is planted, and by which tell it should be found. */
const PLANTS: Record<string, { kind: TellKind; plant: Plant }> = {
  'tone step of about 4 CIEDE2000': {
    kind: 'tone',
    plant: (picture, site) => altered(picture, site, (v) => v + 11),
  },
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
  'patch copied within sight': {
    kind: 'repeat',
    plant: (picture, site, random) => {
      const by = shiftWithin(picture, site, random);
      return altered(picture, site, (_, p, c) => picture.data[(p + by) * picture.channels + c]!);
    },
  },
};

/** False alarms at random places of untouched pictures, and planted tells found, kind by kind. */
export async function benchProof(): Promise<void> {
  const random = seededRandom(11);
  const pictures = [
    ...(await Promise.all(OPEN.map(openPicture))),
    ...(await Promise.all(DEMO.map(demoPicture))),
  ].map(middleOf);
  const alarms = new Map<TellKind, number>();
  const found = new Map<string, number>();
  let [area, sites, ms] = [0, 0, 0];
  for (const picture of pictures) {
    area += (picture.width * picture.height) / 1e6;
    const count = Math.max(2, Math.round(((picture.width * picture.height) / 1e6) * DENSITY));
    const list = Array.from({ length: count }, () => blob(picture, random));
    sites += count;
    const start = performance.now();
    for (const { kind } of tellsOf(picture, list)) alarms.set(kind, (alarms.get(kind) ?? 0) + 1);
    ms += performance.now() - start;
    for (const [name, { kind, plant }] of Object.entries(PLANTS))
      for (const site of list.slice(0, PLANTED)) {
        const told = tellsOf(plant(picture, site, random), [site]).some((t) => t.kind === kind);
        found.set(`${name}/n`, (found.get(`${name}/n`) ?? 0) + 1);
        if (told) found.set(name, (found.get(name) ?? 0) + 1);
      }
  }
  const all = [...alarms.values()].reduce((a, b) => a + b, 0);
  console.log(
    `${pictures.length} untouched pictures, ${area.toFixed(1)} MP, ${sites} random sites: ${all} false alarms, ` +
      `${((USUAL * all) / sites).toFixed(2)} a megapixel at ${USUAL} sites a megapixel (bar: 0.5)`,
  );
  console.log(`  ${[...alarms].map(([k, n]) => `${k} ${n}`).join(', ')}`);
  for (const name of Object.keys(PLANTS)) {
    const n = found.get(`${name}/n`) ?? 0;
    const share = Math.round((100 * (found.get(name) ?? 0)) / n);
    console.log(`  ${name.padEnd(36)} found ${share} % of ${n} (bar: 90 %)`);
  }
  console.log(`  limits ${JSON.stringify(TELL_LIMITS)}`);
  console.log(`  ${(ms / sites).toFixed(0)} ms a site, the picture's own index included`);
}

/** A shift of 130 to 200 px that leaves a site within the picture. */
function shiftWithin(
  { width, height }: Raster,
  site: Int32Array,
  random: ReturnType<typeof seededRandom>,
): number {
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

function middleOf(picture: Raster): Raster {
  const [width, height] = [Math.min(SIDE, picture.width), Math.min(SIDE, picture.height)];
  const x = (picture.width - width) >> 1;
  const y = (picture.height - height) >> 1;
  return crop(picture, { x, y, width, height });
}

function blob({ width, height }: Raster, random: ReturnType<typeof seededRandom>): Int32Array {
  const [cx, cy] = [random.between(70, width - 70), random.between(70, height - 70)];
  const a = random.between(18, 60);
  const b = random.between(14, a);
  const turn = random.between(0, 314) / 100;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const pixels: number[] = [];
  for (let y = cy - 62; y < cy + 62; y++)
    for (let x = cx - 62; x < cx + 62; x++) {
      const [u, v] = [(x - cx) * c + (y - cy) * s, (y - cy) * c - (x - cx) * s];
      if ((u / a) ** 2 + (v / b) ** 2 <= 1) pixels.push(y * width + x);
    }
  return Int32Array.from(pixels);
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
