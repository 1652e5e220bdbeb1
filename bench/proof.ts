import type { Raster, Tell } from '@tersum/core';
import { crop, leftoversOf, seededRandom, tellsOf, TELL_LIMITS } from '@tersum/core';
import type { Random } from './plants.js';
import { crossings, moved, PLANTS } from './plants.js';
import { demoPicture, openPicture } from './pictures.js';

const OPEN = ['acanthus-mollis', 'french-alpine-landscape'] as const;
const DEMO = [
  'mesh-truth.jpg',
  'quay-print-truth.jpg',
  'wires-truth-no-wires.jpg',
  'head-truth.jpg',
];
/** Random sites a megapixel. */
const DENSITY = 40;
/** Sites a megapixel to which the bar of false alarms is taken to apply. */
const USUAL = 6;
/** Sites a picture in which each kind is planted. */
const PLANTED = 20;
/** Where sites lie is a matter of chance: it is drawn so many times. */
const SEEDS = [11, 29, 47];
/** Most px of a side: the middle of larger pictures is taken. */
const SIDE = 900;

/** False alarms at random places of untouched pictures, and planted tells found, kind by kind. */
export async function benchProof(): Promise<void> {
  const pictures = [
    ...(await Promise.all(OPEN.map(openPicture))),
    ...(await Promise.all(DEMO.map(demoPicture))),
  ].map(middleOf);
  const alarms = new Map<string, number>();
  const found = new Map<string, { hits: number; any: number; of: number }>();
  const count = (name: string, tells: readonly Tell[], kind: Tell['kind']): void => {
    const { hits, any, of } = found.get(name) ?? { hits: 0, any: 0, of: 0 };
    const hit = tells.some((t) => t.kind === kind);
    found.set(name, {
      hits: hits + (hit ? 1 : 0),
      any: any + (tells.length ? 1 : 0),
      of: of + 1,
    });
  };
  let [area, sites, ms] = [0, 0, 0];
  for (const [picture, random] of SEEDS.map(seededRandom).flatMap((drawn) =>
    pictures.map((each) => [each, drawn] as const),
  )) {
    area += (picture.width * picture.height) / 1e6;
    const places = Math.max(2, Math.round(((picture.width * picture.height) / 1e6) * DENSITY));
    const list = Array.from({ length: places }, () => blob(picture, random));
    sites += places;
    const start = performance.now();
    for (const { kind } of told(picture, list)) alarms.set(kind, (alarms.get(kind) ?? 0) + 1);
    ms += performance.now() - start;
    for (const [name, { kind, plant }] of Object.entries(PLANTS))
      for (const site of list.slice(0, PLANTED))
        count(name, told(plant(picture, site, random), [site]), kind);
    for (const crossing of crossings(picture, random, PLANTED))
      count(
        'line shifted by 3 px',
        told(moved(picture, crossing, 3), [crossing.site]),
        'broken-line',
      );
  }
  const all = [...alarms.values()].reduce((a, b) => a + b, 0);
  console.log(
    `${pictures.length} untouched pictures, ${(area / SEEDS.length).toFixed(1)} MP, ${sites} random sites in ${SEEDS.length} draws: ${all} false alarms, ` +
      `${((USUAL * all) / sites).toFixed(2)} a megapixel at ${USUAL} sites a megapixel (bar: 0.5)`,
  );
  console.log(`  ${[...alarms].map(([k, n]) => `${k} ${n}`).join(', ')}`);
  for (const [name, { hits, any, of }] of found)
    console.log(
      `  ${name.padEnd(36)} told ${percent(any, of)} % of ${of} (bar: 90 %), by its own kind ${percent(hits, of)} %`,
    );
  console.log(`  limits ${JSON.stringify(TELL_LIMITS)}`);
  console.log(`  ${(ms / sites).toFixed(0)} ms a site, the picture's own index included`);
}

function percent(part: number, of: number): number {
  return Math.round((100 * part) / of);
}

function told(picture: Raster, sites: readonly Int32Array[]): Tell[] {
  return [...tellsOf(picture, sites), ...leftoversOf(picture, sites)];
}

function middleOf(picture: Raster): Raster {
  const [width, height] = [Math.min(SIDE, picture.width), Math.min(SIDE, picture.height)];
  const x = (picture.width - width) >> 1;
  const y = (picture.height - height) >> 1;
  return crop(picture, { x, y, width, height });
}

function blob({ width, height }: Raster, random: Random): Int32Array {
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
