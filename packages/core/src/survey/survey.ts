import type { Raster } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import { boxOf } from './outlines.js';
import { creasesOf } from './creases.js';
import { factsReader } from './facts.js';
import { fadeOf } from './fade.js';
import type { Finding, FindingKind } from './finding.js';
import { FINDING_KINDS } from './finding.js';
import { inkOf } from './ink.js';
import { scoreOf } from './judge.js';
import type { Layer } from '../raster/layers.js';
import { layerAt, layersFrom } from '../raster/layers.js';
import type { Mesh } from './mesh/mesh.js';
import { meshOf } from './mesh/mesh.js';
import { meshSites } from './mesh/sites.js';
import { pixelsUp } from './pixels-up.js';
import { scratchesOf, wiresOf } from './scratches.js';
import { agreed } from './specks.js';
import type { Strand } from './strands.js';
import { strokePixels } from './stroke-mask.js';
import type { ToneCurve } from './tone-curve.js';
import { toneCurveOf } from './tone-curve.js';
import type { Studied } from './studies.js';
import { levelFor, MOST, strandLevel, studiesFor, study } from './studies.js';

/** What a survey looks for. */
export interface SurveyOptions {
  /** @default all kinds */
  kinds?: readonly FindingKind[];
  /** 0..1 for all kinds, or kind by kind; 0.5 is the default, higher finds more. */
  sensitivity?: number | Partial<Record<FindingKind, number>>;
}

/** Something found before it is measured. */
interface Found {
  readonly kind: FindingKind;
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
  readonly line: Finding['line'];
  /** Width of what it is made of, and how far its edges fade, px. */
  readonly size?: number;
  readonly soft?: number;
  /** Pixels of what it is made of, where that has outlines of its own. */
  readonly parts?: readonly Int32Array[];
}

/** Surveys a picture on the calling thread. @throws Cancelled */
export function survey(picture: Raster, options: SurveyOptions = {}, task?: Task): Finding[] {
  const studies = studiesFor(picture, options.kinds ?? FINDING_KINDS);
  const studied = studies.flatMap((s, k) => {
    checkpoint(task, k / (studies.length + 1));
    return study(picture, s);
  });
  const findings = findingsFrom(picture, studied, options);
  checkpoint(task, 1);
  return findings;
}

/** Least log odds a finding of a kind needs: 0 at the default sensitivity. */
function leastOdds({ sensitivity = 0.5 }: SurveyOptions, kind: FindingKind): number {
  const own = typeof sensitivity === 'number' ? sensitivity : (sensitivity[kind] ?? 0.5);
  return 6 * (0.5 - own);
}

/**
 * Kinds in the order in which they claim pixels: what is part of a mesh or of writing is no scratch.
 */
const CLAIMS: readonly FindingKind[] = [
  'mesh',
  'losses',
  'ink',
  'creases',
  'wires',
  'lines',
  'specks',
  'stains',
  'pulls',
];
/** Share of its pixels by which a finding may lie on what others have claimed. */
const SHARED = 0.4;
/** Share of its outline that wires take when a region is only what is seen through a mesh. */
const MESHED = 0.3;
const MOST_FINDINGS = 20_000;

/**
 * Puts studies together: what was found of every kind, each pixel told once, measured.
 * @param studied the results of all of {@link studiesFor}, in any order
 * @returns findings by kind, then likeliest first
 */
export function findingsFrom(
  picture: Raster,
  studied: readonly Studied[],
  options: SurveyOptions = {},
): Finding[] {
  const kinds = options.kinds ?? FINDING_KINDS;
  const all = [...linesFrom(picture, studied), ...regionsFrom(picture, studied)];
  const claimed = new Uint8Array(picture.width * picture.height);
  const kept: Found[] = [];
  for (const kind of CLAIMS) {
    const own = all
      .filter((f) => f.kind === kind && f.odds > leastOdds(options, kind))
      .sort((a, b) => b.odds - a.odds || a.pixels[0]! - b.pixels[0]!);
    for (const found of own) {
      if (kind === 'losses' && kept.length && meshed(found, claimed, picture)) continue;
      if (kind !== 'mesh') {
        const met = found.pixels.reduce((sum, p) => sum + claimed[p]!, 0);
        if (met > SHARED * found.pixels.length) continue;
      }
      if (kept.length >= MOST_FINDINGS) break;
      kept.push(found);
      // Tones lie below other findings; and what is not sure takes nothing from what comes after.
      if (kind !== 'stains' && found.odds > 0) for (const p of found.pixels) claimed[p] = 1;
    }
  }
  const read = factsReader(picture, claimed);
  return kept
    .filter(({ kind }) => kinds.includes(kind))
    .map((found) => findingOf(found, picture, read))
    .sort(
      (a, b) => FINDING_KINDS.indexOf(a.kind) - FINDING_KINDS.indexOf(b.kind) || b.score - a.score,
    );
}

/** Whether a region ends at what has been claimed: nothing but a mesh claims before it. */
function meshed({ pixels }: Found, claimed: Uint8Array, { width, height }: Raster): boolean {
  const own = new Set(pixels);
  let [edge, met] = [0, 0];
  for (const p of pixels)
    for (const step of [-1, 1, -width, width]) {
      const [next, far] = [p + step, p + 3 * step];
      if (own.has(next) || next < 0 || next >= width * height) continue;
      edge++;
      if (claimed[next] || claimed[far]) met++;
    }
  return edge > 0 && met > MESHED * edge;
}

function linesFrom(picture: Raster, studied: readonly Studied[]): Found[] {
  const strands = studied.flatMap((s) => (s.of === 'strands' ? s.strands : []));
  if (!strands.length) return [];
  const level = strandLevel(picture);
  const layers = layersFrom(picture, level, 4);
  const base = layers[0]!;
  const tone = toneOf(picture, layers[levelFor(picture, MOST.tones) - level]);
  const up = (pixels: Int32Array): Int32Array => pixelsUp(pixels, base.grey.width, level, picture);
  const found: Found[] = [];
  for (const c of creasesOf(
    strands.filter((s) => s.level > 0),
    base,
  ))
    found.push({
      kind: 'creases',
      pixels: up(c.site),
      odds: c.odds,
      polarity: 1,
      line: lineOf(c, level),
    });
  for (const i of inkOf(
    strands.filter((s) => s.level < 3),
    layers,
    tone,
  ))
    found.push({ kind: 'ink', pixels: up(i.site), odds: i.odds, polarity: i.polarity, line: null });
  const mesh = meshOf(base.grey, strands);
  if (mesh) {
    const wires = meshSites(mesh, base.grey);
    const parts = wires.map(({ pixels }) => up(pixels));
    const pixels = Int32Array.from(new Set(parts.flatMap((part) => [...part]))).sort();
    const odds = 8 * (mesh.score - 0.5) + 0.1;
    found.push({
      kind: 'mesh',
      pixels,
      odds,
      polarity: mesh.polarity,
      line: null,
      parts,
      ...lookOf(mesh, level),
    });
  }
  found.push(...thinLines(strands, base, tone, level, picture));
  return found;
}

function lookOf({ looks }: Mesh, level: number): { size: number; soft: number } {
  const most = (key: 'width' | 'soft'): number =>
    Math.max(looks[0][key], looks[1][key]) * 2 ** level;
  return { size: most('width'), soft: most('soft') };
}

/** The tone of the picture as a whole; null for grey ones, which have none. @param small where it has been made */
function toneOf(
  picture: Raster,
  small = layerAt(picture, levelFor(picture, MOST.tones)),
): ToneCurve | null {
  return small.colours.length ? toneCurveOf(small) : null;
}

/** Scratches and wires; a line that could be either is what more speaks for. */
function thinLines(
  strands: readonly Strand[],
  base: Layer,
  tone: ToneCurve | null,
  level: number,
  picture: Raster,
): Found[] {
  const side = 2 ** level;
  const shift = (side - 1) / 2;
  return (['lines', 'wires'] as const).flatMap((kind) =>
    (kind === 'lines'
      ? scratchesOf(
          strands.filter((s) => s.level < 3),
          base,
          tone,
        )
      : wiresOf(strands, base.grey)
    ).map((chain): Found => {
      const whole = {
        xs: chain.xs.map((x) => x * side + shift),
        ys: chain.ys.map((y) => y * side + shift),
        widths: chain.widths.map((w) => w * side),
      };
      return {
        kind,
        pixels: strokePixels(whole, picture, 0.5),
        odds: chain.odds,
        polarity: chain.polarity,
        line: lineOf(whole, 0),
      };
    }),
  );
}

function regionsFrom(picture: Raster, studied: readonly Studied[]): Found[] {
  const found: Found[] = [];
  const specks = studied.flatMap((s) => (s.of === 'specks' ? s.specks : []));
  for (const { site, odds, polarity } of agreed(specks, picture))
    found.push({ kind: 'specks', pixels: site, odds, polarity, line: null });
  for (const s of studied) {
    if (s.of !== 'losses' && s.of !== 'tones') continue;
    const width = picture.width >> s.level || 1;
    const add = (
      kind: FindingKind,
      list: readonly { pixels: Int32Array; odds: number; polarity?: 1 | -1 }[],
    ): void => {
      for (const { pixels, odds, polarity = 1 } of list)
        found.push({
          kind,
          pixels: pixelsUp(pixels, width, s.level, picture),
          odds,
          polarity,
          line: null,
        });
    };
    if (s.of === 'losses') add('losses', s.losses);
    else {
      add('stains', s.stains);
      add('pulls', s.pulls);
    }
  }
  return found;
}

interface Run {
  readonly xs: ArrayLike<number>;
  readonly ys: ArrayLike<number>;
  readonly widths: ArrayLike<number>;
}

/** Every so many points of a line one is told. */
const TOLD = 4;

function lineOf({ xs, ys, widths }: Run, level: number): [number, number, number][] {
  const side = 2 ** level;
  const shift = (side - 1) / 2;
  const line: [number, number, number][] = [];
  for (let i = 0; i < xs.length; i++)
    if (i % TOLD === 0 || i === xs.length - 1)
      line.push([
        tenth(xs[i]! * side + shift),
        tenth(ys[i]! * side + shift),
        tenth(widths[i]! * side),
      ]);
  return line;
}

const tenth = (v: number): number => Math.round(10 * v) / 10;

function findingOf(
  { kind, pixels, odds, polarity, line, parts, size, soft }: Found,
  picture: Raster,
  read: ReturnType<typeof factsReader>,
): Finding {
  const box = boxOf(pixels, picture.width);
  const widths = line?.map(([, , w]) => w).sort((a, b) => a - b);
  return {
    kind,
    box,
    pixels,
    parts: parts ?? [pixels],
    line,
    soft: soft ?? (kind === 'specks' ? fadeOf(picture, pixels, polarity) : 0),
    size:
      size ??
      (widths ? widths[widths.length >> 1]! : tenth(2 * Math.sqrt(pixels.length / Math.PI))),
    extent: tenth(Math.hypot(box.width, box.height)),
    ...read(pixels, box),
    polarity,
    score: scoreOf(odds),
  };
}
