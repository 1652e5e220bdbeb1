import { writeFile } from 'node:fs/promises';
import { encodeOpenRaster, layerRaster, readMetadata } from '@tersum/codec';
import type { Finding, FindingKind, Policy, Raster } from '@tersum/core';
import {
  adviseAll,
  crop,
  cropMask,
  EDGE,
  FINDING_KINDS,
  grownMask,
  kindsUnder,
  mayBeMended,
  maskBox,
  paste,
  rimBack,
} from '@tersum/core';
import { ThreadCrew } from '@tersum/threads';
import { Meter, readPicture, readToFill, writePicture, writeReport } from './files.js';
import { fillMask } from './fill.js';
import { kindsOf } from './find.js';
import { surveyed } from './survey.js';
import { sensitivityUnseen, sureUnseen } from './unseen.js';
import { BadUsage, needed, numberOf, readArguments, threadsOf } from './usage.js';

const OPTIONS = {
  out: { type: 'string' },
  policy: { type: 'string' },
  layers: { type: 'string' },
  kinds: { type: 'string' },
  sensitivity: { type: 'string' },
  seed: { type: 'string' },
  threads: { type: 'string' },
  json: { type: 'string' },
} as const;

/** Tones are put right by other means than by copying; such findings are reported and left. */
const LEFT: ReadonlySet<FindingKind> = new Set(['stains']);

/** Wires are bright on one side and dark on the other: their rim stays mended. */
const TWOFOLD: ReadonlySet<FindingKind> = new Set(['mesh', 'wires']);

/** `tersum mend`: finds what a policy allows to be mended and mends it. @param script what a thread of the survey runs */
export async function mendCommand(args: string[], script: URL | null = null): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const out = needed(values.out, 'out');
  const policy = policyOf(values.policy);
  const kinds = kindsOf(values.kinds, kindsUnder(policy));
  const sensitivity = numberOf(values.sensitivity, 'sensitivity', 0, 1, 0.5);
  const seed = Math.round(numberOf(values.seed, 'seed', 0, 0x7fffffff, 1));
  const threads = threadsOf(values.threads);
  const crew = new ThreadCrew(threads);
  const meter = new Meter();
  try {
    const { raster: picture, ppi } = await meter.time('load', () =>
      readToFill(() => readPicture(input)),
    );
    const { findings, mended, result } = await meter.time('engine', async () => {
      const told = await surveyed(
        picture,
        { kinds, sensitivity: sensitivityUnseen(sensitivity) },
        threads,
        script,
      );
      const findings = sureUnseen(told, sensitivity, picture);
      const mended = findings.filter((f) => !LEFT.has(f.kind) && mayBeMended(f, policy));
      const { hole, rim } = holeOf(mended, picture);
      const box = maskBox(hole, picture.width);
      if (!box) return { findings, mended, result: picture };
      const asked = {
        seed,
        adapt: 1,
        variants: 1,
        turn: 0,
        mirror: false,
        scale: [1, 1] as const,
        near: true,
      };
      const { window, variants } = fillMask(
        picture,
        hole,
        new Uint8Array(hole.length),
        box,
        asked,
        crew,
      );
      const result = rimBack(picture, paste(picture, variants[0]!.part, window), rim);
      return { findings, mended, result };
    });
    await meter.time('save', async () => {
      await writePicture(out, result, input, ppi);
      if (values.layers) await writeLayers(values.layers, picture, result, mended, input, ppi);
    });
    const advice = adviseAll(findings, picture);
    await writeReport(values.json, {
      command: 'mend',
      policy,
      kinds,
      sensitivity,
      seed,
      threads,
      found: countOf(findings),
      mended: countOf(mended),
      left: countOf(findings.filter((f) => !mended.includes(f))),
      by_hand_s: advice.reduce((sum, { byHand }) => sum + byHand, 0),
      ...meter.report(),
    });
  } finally {
    await crew.close();
  }
}

/** The original, and a layer for every kind of finding that was mended. */
async function writeLayers(
  path: string,
  picture: Raster,
  result: Raster,
  mended: readonly Finding[],
  input: string,
  ppi: number | null,
): Promise<void> {
  const { width, height } = picture;
  const claimed = new Uint8Array(width * height);
  const layers = FINDING_KINDS.flatMap((kind) => {
    const mask = new Uint8Array(width * height);
    for (const finding of mended) if (finding.kind === kind) cover(mask, finding, width);
    for (let p = 0; p < mask.length; p++) {
      if (claimed[p]) mask[p] = 0;
      else if (mask[p]) claimed[p] = 1;
    }
    const box = maskBox(mask, width);
    if (!box) return [];
    const raster = layerRaster(crop(result, box), cropMask(mask, width, box));
    return [{ name: kind, x: box.x, y: box.y, visible: true, opacity: 1, raster }];
  });
  const original = { name: 'original', x: 0, y: 0, visible: true, opacity: 1, raster: picture };
  const { icc } = await readMetadata(input);
  const baggage = { icc: icc ?? null, exif: null, ppi };
  const file = await encodeOpenRaster(
    { width, height, layers: [original, ...layers] },
    result,
    baggage,
  );
  await writeFile(path, file);
}

function policyOf(value: string | undefined): Policy {
  if (value === undefined || value === 'documentary') return 'documentary';
  if (value === 'picture') return 'picture';
  throw new BadUsage(`--policy takes documentary or picture, not '${value}'`);
}

function cover(hole: Uint8Array, { pixels, box, kind, soft }: Finding, width: number): void {
  const height = hole.length / width;
  for (const p of grownMask(pixels, box, { width, height }, kind, soft)) hole[p] = 1;
}

/** What is mended of findings, and the rim of that, see {@link rimBack}. */
function holeOf(
  findings: readonly Finding[],
  { width, height }: Raster,
): { readonly hole: Uint8Array; readonly rim: Int8Array } {
  const hole = new Uint8Array(width * height);
  const rim = new Int8Array(width * height);
  const found = new Uint8Array(width * height);
  for (const { pixels, box, kind, soft, polarity, tinted } of findings) {
    for (const p of pixels) found[p] = 1;
    for (const p of grownMask(pixels, box, { width, height }, kind, soft)) {
      hole[p] = 1;
      rim[p] = TWOFOLD.has(kind) ? 0 : tinted ? EDGE : polarity;
    }
  }
  const isEdge = (p: number): boolean =>
    [1, 2, width, 2 * width].some((step) => found[p - step] === 0 || found[p + step] === 0);
  for (const { pixels, kind } of findings)
    for (const p of pixels) rim[p] = !TWOFOLD.has(kind) && isEdge(p) ? EDGE : 0;
  return { hole, rim };
}

function countOf(findings: readonly Finding[]): Partial<Record<FindingKind, number>> {
  const counts: Partial<Record<FindingKind, number>> = {};
  for (const { kind } of findings) counts[kind] = (counts[kind] ?? 0) + 1;
  return counts;
}
