import type { Candidate } from './candidate.js';
import type { ChainedStrand } from './chains.js';
import type { Halves } from '../raster/halves.js';
import { layerOf, layersOf } from '../raster/halves.js';
import type { Raster } from '../raster/raster.js';
import { CREASE_LEVELS, creasesOf } from './creases.js';
import { regionsFrom } from './gather-regions.js';
import { inkOf } from './ink.js';
import type { Mesh } from './mesh/mesh.js';
import { meshOf } from './mesh/mesh.js';
import { meshSites } from './mesh/sites.js';
import { withForeign } from './one-tone.js';
import { pixelsUp } from './pixels-up.js';
import { scratchesOf } from './scratches.js';
import type { Strand } from './strands.js';
import { strokePixels } from './stroke-mask.js';
import type { Studied } from './studies.js';
import { isOfLines, levelFor, MOST, strandLevel } from './studies.js';
import type { ToneCurve } from './tone-curve.js';
import { toneCurveOf } from './tone-curve.js';
import { tenth } from './tenth.js';
import { wiresOf } from './wires.js';

/** What candidates are gathered for apart, so that it is done side by side; the longest first. */
export const GATHERINGS = ['mesh', 'lines', 'creases', 'regions'] as const;
export type Gathering = (typeof GATHERINGS)[number];

/** Whether a study tells of what is gathered. */
export function gathersFrom(of: Gathering, what: Studied['of']): boolean {
  switch (of) {
    case 'mesh':
      return what === 'strands';
    case 'lines':
    case 'creases':
      return isOfLines(what);
    case 'regions':
      return !isOfLines(what);
  }
}

/**
 * What studies come to of some kinds.
 * @param studied the results of all of {@link studiesFor} that it needs, in the studies' order
 */
export function gathered(halves: Halves, studied: readonly Studied[], of: Gathering): Candidate[] {
  switch (of) {
    case 'lines':
      return linesFrom(halves, studied);
    case 'creases':
      return creasesFrom(halves, studied);
    case 'mesh':
      return meshFrom(halves, studied);
    case 'regions':
      return regionsFrom(halves.picture, studied);
  }
}

const strandsOf = (studied: readonly Studied[]): Strand[] =>
  studied.flatMap((s) => (s.of === 'strands' ? s.strands : []));

/** Strands that stand out from a print of one tone by their colour too. */
const foreignOf = (studied: readonly Studied[]): Strand[] =>
  studied.flatMap((s) => (s.of === 'foreign' && s.strands) || []);

function linesFrom(halves: Halves, studied: readonly Studied[]): Candidate[] {
  const { picture } = halves;
  const strands = strandsOf(studied);
  if (!strands.length) return [];
  const foreign = foreignOf(studied);
  const level = strandLevel(picture);
  const plain = layersOf(halves, level, 4);
  const fineLayers = plain.slice(0, 3);
  const layers = isOfOneTone(studied) ? fineLayers.map((l) => withForeign(l) ?? l) : fineLayers;
  const base = layers[0]!;
  const tone = toneOf(halves, plain[levelFor(picture, MOST.tones) - level]);
  const up = (pixels: Int32Array): Int32Array => pixelsUp(pixels, base.grey.width, level, picture);
  const found: Candidate[] = [];
  const fine = [...strands, ...foreign].filter((s) => s.level < 3);
  for (const i of inkOf(fine, layers, tone))
    found.push({
      kind: 'ink',
      pixels: up(i.site),
      odds: i.odds,
      polarity: i.polarity,
      line: null,
      isAlone: i.isAlone,
      onBoard: i.isOnBoard,
    });
  const lines = scratchesOf(fine, base.grey, base.colours[3] ?? null);
  const wires = wiresOf(strands, base.grey);
  return [
    ...found,
    ...lines.map((line) => thinLine('lines', line, level, picture)),
    ...wires.map((wire) => thinLine('wires', wire, level, picture)),
  ];
}

function creasesFrom(halves: Halves, studied: readonly Studied[]): Candidate[] {
  const { picture } = halves;
  const strands = creaseStrands(strandsOf(studied), foreignOf(studied));
  if (!strands.length) return [];
  const level = strandLevel(picture);
  const plain = layerOf(halves, level);
  const layer = isOfOneTone(studied) ? (withForeign(plain) ?? plain) : plain;
  return creasesOf(strands, layer).map((crease) => ({
    kind: 'creases',
    pixels: pixelsUp(crease.site, layer.grey.width, level, picture),
    odds: crease.odds,
    polarity: 1,
    line: lineOf(crease, level),
  }));
}

const isOfOneTone = (studied: readonly Studied[]): boolean =>
  studied.some((s) => s.of === 'foreign' && s.strands);

/** What creases are told from: where a level is told by colour too, by that. */
function creaseStrands(strands: readonly Strand[], foreign: readonly Strand[]): Strand[] {
  return CREASE_LEVELS.flatMap((level) => {
    const at = (list: readonly Strand[]): Strand[] => list.filter((s) => s.level === level);
    return at(at(foreign).length ? foreign : strands);
  });
}

function meshFrom(halves: Halves, studied: readonly Studied[]): Candidate[] {
  const { picture } = halves;
  const strands = strandsOf(studied);
  if (!strands.length) return [];
  const level = strandLevel(picture);
  const { grey } = layerOf(halves, level);
  const mesh = meshOf(grey, strands);
  if (!mesh) return [];
  const parts = meshSites(mesh, grey).map(({ pixels }) =>
    pixelsUp(pixels, grey.width, level, picture),
  );
  const pixels = Int32Array.from(new Set(parts.flatMap((part) => [...part]))).sort();
  const odds = 8 * (mesh.score - 0.5) + 0.1;
  return [
    {
      kind: 'mesh',
      pixels,
      odds,
      polarity: mesh.polarity,
      line: null,
      parts,
      ...lookOf(mesh, level),
    },
  ];
}

function lookOf({ looks }: Mesh, level: number): { size: number; soft: number } {
  const most = (key: 'width' | 'soft'): number =>
    Math.max(looks[0][key], looks[1][key]) * 2 ** level;
  return { size: most('width'), soft: most('soft') };
}

/** The tone of the picture as a whole; null for grey ones, which have none. @param small where it has been made */
function toneOf(
  halves: Halves,
  small = layerOf(halves, levelFor(halves.picture, MOST.tones)),
): ToneCurve | null {
  return small.colours.length ? toneCurveOf(small) : null;
}

function thinLine(
  kind: 'lines' | 'wires',
  { xs, ys, widths, odds, polarity }: ChainedStrand,
  level: number,
  picture: Raster,
): Candidate {
  const side = 2 ** level;
  const shift = (side - 1) / 2;
  const whole = {
    xs: xs.map((x) => x * side + shift),
    ys: ys.map((y) => y * side + shift),
    widths: widths.map((w) => w * side),
  };
  return {
    kind,
    pixels: strokePixels(whole, picture, 0.5),
    odds,
    polarity,
    line: lineOf(whole, 0),
  };
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
