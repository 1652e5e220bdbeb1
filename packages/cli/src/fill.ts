import type { CutOff, DonorMap, FillFigures, Raster, Rect } from '@tersum/core';
import {
  crop,
  cropMask,
  cutOff,
  fill,
  FILL_VARIANTS,
  fillFigures,
  findGuides,
  frameOf,
  GRAIN_SHARE,
  grainBack,
  maskBox,
  NothingToCopy,
  paste,
  searchFill,
  searchWindow,
  sheetsFor,
  tellScore,
} from '@tersum/core';
import { ThreadCrew } from '@tersum/threads';
import { extname } from 'node:path';
import { Meter, readMask, readPicture, readToFill, writePicture, writeReport } from './files.js';
import { sidesGrained } from './sides.js';
import { BadUsage, needed, numberOf, rangeOf, readArguments, threadsOf } from './usage.js';

const OPTIONS = {
  mask: { type: 'string' },
  out: { type: 'string' },
  variants: { type: 'string' },
  donors: { type: 'string' },
  avoid: { type: 'string' },
  turn: { type: 'string' },
  mirror: { type: 'boolean' },
  scale: { type: 'string' },
  adapt: { type: 'string' },
  seed: { type: 'string' },
  threads: { type: 'string' },
  json: { type: 'string' },
} as const;
const MOST_VARIANTS = 16;

export interface Asked {
  readonly seed: number;
  readonly adapt: number;
  readonly variants: number;
  readonly turn: number;
  readonly mirror: boolean;
  readonly scale: readonly [number, number];
  /** Whether sites open to the picture's border take nothing of a kind not seen near them. */
  readonly near: boolean;
}

interface Variant {
  readonly part: Raster;
  /** Measured when there is a choice. */
  readonly figures: FillFigures | null;
  readonly seed: number;
}

/** `tersum fill`: fills a mask from what stands around it. */
export async function fillCommand(args: string[]): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const scale = rangeOf(values.scale, 'scale', 25, 400, [100, 100]);
  const asked: Asked = {
    seed: Math.round(numberOf(values.seed, 'seed', 0, 0x7fffffff, 1)),
    // Donors that were named are the ones meant.
    near: !values.donors,
    adapt: numberOf(values.adapt, 'adapt', 0, 1, 1),
    variants: Math.round(numberOf(values.variants, 'variants', 1, MOST_VARIANTS, 1)),
    turn: numberOf(values.turn, 'turn', 0, 180, 0),
    mirror: values.mirror ?? false,
    scale: [scale[0] / 100, scale[1] / 100],
  };
  const crew = new ThreadCrew(threadsOf(values.threads));
  const meter = new Meter();
  try {
    const load = async () => {
      const { raster, ppi } = await readPicture(input);
      const hole = await readMask(needed(values.mask, 'mask'), raster);
      const banned = values.avoid
        ? await readMask(values.avoid, raster)
        : new Uint8Array(hole.length);
      if (values.donors) {
        const donors = await readMask(values.donors, raster);
        for (let p = 0; p < donors.length; p++) if (!donors[p]) banned[p] = 1;
      }
      return { picture: raster, hole, banned, ppi };
    };
    const { picture, hole, banned, ppi } = await meter.time('load', () => readToFill(load));
    const box = maskBox(hole, picture.width);
    const found = await meter.time('engine', () =>
      box ? fillMask(picture, hole, banned, box, asked, crew) : null,
    );
    const names = asked.variants > 1 ? numbered(out, asked.variants) : [out];
    await meter.time('save', async () => {
      for (const [k, name] of names.entries()) {
        const variant = found?.variants[k];
        const result = variant ? paste(picture, variant.part, found.window) : picture;
        await writePicture(name, result, input, ppi);
      }
    });
    await writeReport(values.json, {
      command: 'fill',
      ...asked,
      threads: crew.threads,
      window: found?.window ?? null,
      written: names.map((file, k) => ({
        file,
        seed: found?.variants[k]?.seed ?? null,
        figures: found?.variants[k]?.figures ?? null,
      })),
      ...meter.report(),
    });
  } finally {
    await crew.close();
  }
}

/** OUT with -1 .. -K before its extension. */
function numbered(out: string, variants: number): string[] {
  const extension = extname(out);
  const stem = out.slice(0, out.length - extension.length);
  return Array.from({ length: variants }, (_, k) => `${stem}-${k + 1}${extension}`);
}

/** Fills the mask as often as asked, best first. */
export function fillMask(
  picture: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  box: Rect,
  asked: Asked,
  crew: ThreadCrew,
): { readonly window: Rect; readonly variants: readonly Variant[] } {
  const window = searchWindow(box, frameOf(picture), (part) => cropMask(hole, picture.width, part));
  const below = crop(picture, window);
  const mask = cropMask(hole, picture.width, window);
  const closed = cropMask(banned, picture.width, window);
  const coverage = Float32Array.from(mask);
  const sides = isPlain(asked) && !banned.includes(1) ? cutOff(picture, hole, crew) : null;
  if (sides) return { window: frameOf(picture), variants: sidesAsked(sides, asked, crew) };
  const sheets = sheetsFor(asked);
  const replay = (map: DonorMap): Raster =>
    grainBack(
      fill({ below, origin: window, map, coverage }, 1, { adapt: asked.adapt, crew }),
      coverage,
      GRAIN_SHARE,
      asked.seed,
    );
  try {
    const variants = Array.from({ length: asked.variants }, (_, k): Variant => {
      const seed = asked.seed + k;
      const { texture } = FILL_VARIANTS[k % FILL_VARIANTS.length]!;
      const guides = findGuides(below, mask, true);
      const map = searchFill(below, window, mask, closed, {
        seed,
        texture,
        sheets,
        crew,
        guides,
        near: asked.near,
      });
      const part = replay(map);
      return { part, seed, figures: asked.variants > 1 ? fillFigures(part, mask, map) : null };
    });
    const score = ({ figures }: Variant): number => (figures ? tellScore(figures) : 0);
    variants.sort((a, b) => score(a) - score(b));
    return { window, variants };
  } catch (error) {
    if (error instanceof NothingToCopy) throw new BadUsage('the mask leaves nothing to copy from');
    throw error;
  }
}

/** Whether donors are to be taken as they are, wherever they lie. */
function isPlain({ turn, mirror, scale, adapt }: Asked): boolean {
  return turn === 0 && !mirror && scale[0] === 1 && scale[1] === 1 && adapt === 1;
}

/** Missing sides beside something that stands before a backdrop, filled as new sides are. */
function sidesAsked(
  { picture, sides, subject }: CutOff,
  asked: Asked,
  crew: ThreadCrew,
): readonly Variant[] {
  return Array.from({ length: asked.variants }, (_, k): Variant => {
    const seed = asked.seed + k;
    const { texture } = FILL_VARIANTS[k % FILL_VARIANTS.length]!;
    return {
      part: sidesGrained(picture, sides, subject, { seed, texture, crew }),
      seed,
      figures: null,
    };
  });
}
