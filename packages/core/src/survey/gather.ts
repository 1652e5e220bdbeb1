import type { ChainedStrand } from './chains.js';
import type { Halves } from '../raster/halves.js';
import { layerOf, layersOf } from '../raster/halves.js';
import type { Raster } from '../raster/raster.js';
import { CREASE_LEVELS, creasesOf } from './creases.js';
import type { Finding, FindingKind } from './finding.js';
import { inkOf } from './ink.js';
import type { Mesh } from './mesh/mesh.js';
import { meshOf } from './mesh/mesh.js';
import { meshSites } from './mesh/sites.js';
import { withForeign } from './one-tone.js';
import { pixelsUp } from './pixels-up.js';
import { scratchesOf } from './scratches.js';
import type { Speck } from './specks.js';
import { agreed } from './specks.js';
import type { Blemish } from './blemishes.js';
import type { Strand } from './strands.js';
import { strokePixels } from './stroke-mask.js';
import type { Studied } from './studies.js';
import { isOfLines, levelFor, MOST, strandLevel } from './studies.js';
import type { ToneCurve } from './tone-curve.js';
import { toneCurveOf } from './tone-curve.js';
import { tenth } from './tenth.js';
import { wiresOf } from './wires.js';

/** Something found before it is measured; plain data. */
export interface Candidate {
  readonly kind: FindingKind;
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
  readonly line: Finding['line'];
  /** See {@link Finding.tinted}. */
  readonly tinted?: boolean;
  /** Where it is told better than by a ring, see {@link Finding.contrast}. */
  readonly contrast?: number;
  /** Width of what it is made of, and how far its edges fade, px. */
  readonly size?: number;
  readonly soft?: number;
  /** Of ink: nothing else of it was found. */
  readonly isAlone?: boolean;
  /** See {@link Finding.onBoard}. */
  readonly onBoard?: boolean;
  /** Pixels of what it is made of, where that has outlines of its own. */
  readonly parts?: readonly Int32Array[];
}

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

function regionsFrom(picture: Raster, studied: readonly Studied[]): Candidate[] {
  const found: Candidate[] = [];
  const specks = agreed(
    studied.flatMap((s) => (s.of === 'specks' ? s.specks : [])),
    picture,
  );
  for (const { site, odds, polarity } of specks)
    found.push({ kind: 'specks', pixels: site, odds, polarity, line: null });
  for (const blemish of blemishesAmong(specks, studied, picture))
    found.push({ kind: 'specks', line: null, tinted: true, ...blemish });
  for (const s of studied) {
    if (s.of !== 'losses' && s.of !== 'tones') continue;
    const width = picture.width >> s.level || 1;
    const add = (
      kind: FindingKind,
      list: readonly (Pick<Candidate, 'pixels' | 'odds' | 'contrast'> & { polarity?: 1 | -1 })[],
    ): void => {
      for (const { polarity = 1, ...region } of list)
        found.push({
          ...region,
          kind,
          pixels: pixelsUp(region.pixels, width, s.level, picture),
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

/** Specks on a megapixel that make a scan dusty, and what speaks against blemishes there: specks have colours as well. */
const DUSTY = { each: 8, against: 3 } as const;

/** How far colour fades at the rim of a blemish, px of its level: tone may not tell. */
const RIM = 1.5;
/** px round a speck in which its own rim would pass for a blemish. */
const BESIDE = 4;

/** Blemishes in the picture, each told once; what is a speck already is none. */
function blemishesAmong(
  specks: readonly Speck[],
  studied: readonly Studied[],
  picture: Raster,
): (Blemish & Pick<Candidate, 'soft'>)[] {
  const { width, height } = picture;
  const taken = new Uint8Array(width * height);
  const sure = specks.filter(({ odds }) => odds > 0);
  for (const { site } of sure)
    for (const p of site)
      for (let v = -BESIDE; v <= BESIDE; v++) {
        const row = p + v * width;
        taken.fill(1, Math.max(0, row - BESIDE), Math.max(0, row + BESIDE + 1));
      }
  const dusty = sure.length > (DUSTY.each * width * height) / 1e6 ? DUSTY.against : 0;
  return studied
    .flatMap((s) =>
      s.of === 'blemishes' ? s.blemishes.map((b) => ({ ...b, level: s.level })) : [],
    )
    .map(({ pixels, odds, polarity, level }) => ({
      pixels: pixelsUp(pixels, width >> level, level, picture),
      odds: odds - dusty,
      polarity,
      soft: RIM * 2 ** level,
    }))
    .sort((a, b) => b.odds - a.odds || a.pixels[0]! - b.pixels[0]!)
    .filter(({ pixels }) => {
      if (pixels.some((p) => taken[p])) return false;
      for (const p of pixels) taken[p] = 1;
      return true;
    });
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
