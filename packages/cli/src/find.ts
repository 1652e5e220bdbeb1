import type { Finding, FindingAdvice, FindingKind } from '@tersum/core';
import {
  adviseAll,
  createRaster,
  FINDING_KINDS,
  IN_THE_HAND,
  millimetres,
  outlinesOf,
  shows,
  USUAL_PPI,
} from '@tersum/core';
import { Meter, readPicture, writePicture, writeReport } from './files.js';
import { surveyed } from './survey.js';
import { BadUsage, needed, numberOf, readArguments, threadsOf } from './usage.js';

const OPTIONS = {
  kinds: { type: 'string' },
  sensitivity: { type: 'string' },
  'out-mask': { type: 'string' },
  threads: { type: 'string' },
  json: { type: 'string' },
} as const;

/** `tersum find`: surveys a picture and reports what may need mending. @param script what a thread of the survey runs */
export async function findCommand(args: string[], script: URL | null = null): Promise<void> {
  const { input, values } = readArguments(args, OPTIONS);
  const to = needed(values.json, 'json');
  const kinds = kindsOf(values.kinds, FINDING_KINDS);
  const sensitivity = numberOf(values.sensitivity, 'sensitivity', 0, 1, 0.5);
  const threads = threadsOf(values.threads);
  const meter = new Meter();
  const { raster: picture, ppi } = await meter.time('load', () => readPicture(input));
  const { findings, advice } = await meter.time('engine', async () => {
    const findings = await surveyed(picture, { kinds, sensitivity }, threads, script);
    return { findings, advice: adviseAll(findings, picture) };
  });
  await meter.time('save', async () => {
    if (!values['out-mask']) return;
    const mask = createRaster(picture.width, picture.height, 1);
    for (const { pixels } of findings) for (const p of pixels) mask.data[p] = 255;
    await writePicture(values['out-mask'], mask, input, ppi);
  });
  await writeReport(to, {
    command: 'find',
    kinds,
    sensitivity,
    threads,
    findings: findings.map((finding, k) => told(finding, advice[k]!, picture.width, ppi)),
    ...meter.report(),
  });
}

/** Kinds by their names, joined by commas. @throws BadUsage */
export function kindsOf(
  value: string | undefined,
  preset: readonly FindingKind[],
): readonly FindingKind[] {
  if (value === undefined) return preset;
  return value.split(',').map((name) => {
    const kind = FINDING_KINDS.find((k) => k === name.trim());
    if (!kind)
      throw new BadUsage(
        `there is no kind '${name.trim()}'; there are ${FINDING_KINDS.join(', ')}`,
      );
    return kind;
  });
}

function told(finding: Finding, advice: FindingAdvice, width: number, ppi: number | null) {
  const { kind, box, line, size, contrast, nearEdge, score, polarity, onBoard, extent } = finding;
  return {
    kind,
    bbox: [box.x, box.y, box.width, box.height],
    ...(line ? { line } : { outline: outlinesOf(finding, width) }),
    polarity: polarity > 0 ? 'bright' : 'dark',
    size_px: size,
    size_mm: ppi ? rounded(millimetres(size, ppi)) : null,
    extent_px: extent,
    contrast_de: rounded(contrast),
    near_edge_px: nearEdge?.distance ?? null,
    shows: shows(size, contrast, { ppi: ppi ?? USUAL_PPI, ...IN_THE_HAND }),
    score: rounded(score),
    ...(onBoard ? { on_board: true } : {}),
    advice,
  };
}

const rounded = (v: number): number => Math.round(1000 * v) / 1000;
