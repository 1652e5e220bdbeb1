import { halvesOf } from '../raster/halves.js';
import type { Raster } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import { fringes, meshed, SHARED, strings, surerHair, surerLines } from './claims.js';
import { factsReader } from './facts.js';
import { fadeOf } from './fade.js';
import type { Finding, FindingKind } from './finding.js';
import { FINDING_KINDS } from './finding.js';
import type { Candidate } from './candidate.js';
import { gathered, GATHERINGS } from './gather.js';
import { scoreOf } from './judge.js';
import { boxOf } from './outlines.js';
import { oddsAt } from './sensitivity.js';
import { studiesFor, study } from './studies.js';
import { tenth } from './tenth.js';

/** What a survey looks for. */
export interface SurveyOptions {
  /** @default all kinds */
  kinds?: readonly FindingKind[];
  /** 0..1 for all kinds, or kind by kind; 0.5 is the default, higher finds more. */
  sensitivity?: number | Partial<Record<FindingKind, number>>;
}

/** Surveys a picture on the calling thread. @throws Cancelled */
export function survey(picture: Raster, options: SurveyOptions = {}, task?: Task): Finding[] {
  const studies = studiesFor(picture, options.kinds ?? FINDING_KINDS);
  const halves = halvesOf(picture);
  const studied = studies.flatMap((s, k) => {
    checkpoint(task, k / (studies.length + 1));
    return study(halves, s);
  });
  const candidates = GATHERINGS.flatMap((of) => gathered(halves, studied, of));
  const findings = findingsFrom(picture, candidates, options);
  checkpoint(task, 1);
  return findings;
}

/** Least log odds a finding of a kind needs: 0 at the default sensitivity. */
function leastOdds({ sensitivity = 0.5 }: SurveyOptions, kind: FindingKind): number {
  const own = typeof sensitivity === 'number' ? sensitivity : (sensitivity[kind] ?? 0.5);
  return oddsAt(own);
}

/**
 * Kinds in the order in which they claim pixels: what is part of a mesh or of writing is no scratch. Whether a line is a
 * wire or lies on the picture is told by which is likelier.
 */
const CLAIMS: readonly (readonly FindingKind[])[] = [
  ['mesh'],
  ['losses'],
  ['ink'],
  ['creases'],
  ['wires', 'lines'],
  ['specks'],
  ['stains'],
  ['pulls'],
];
/** How much likelier a line has to be than a wire that claims the same. */
const WIRES_FIRST = 1;
const MOST_FINDINGS = 20_000;

/**
 * The findings among candidates: each pixel told once, measured.
 * @param all of all {@link GATHERINGS}, in their order
 * @returns findings by kind, then likeliest first
 */
export function findingsFrom(
  picture: Raster,
  all: readonly Candidate[],
  options: SurveyOptions = {},
): Finding[] {
  const kinds = options.kinds ?? FINDING_KINDS;
  const claimed = new Uint8Array(picture.width * picture.height);
  const written = new Uint8Array(claimed.length);
  const kept: Candidate[] = [];
  const likely = all.filter((f) => f.odds > leastOdds(options, f.kind));
  const [isLine, isHair] = [surerLines(likely, picture), surerHair(likely)];
  for (const some of CLAIMS) {
    const own = likely
      .filter(({ kind }) => some.includes(kind))
      .sort((a, b) => claimOf(b) - claimOf(a) || a.pixels[0]! - b.pixels[0]!);
    for (const found of own) {
      const { kind } = found;
      if (kind === 'losses' && kept.length && meshed(found, claimed, picture)) continue;
      if (kind === 'ink' && (isLine(found) || isHair(found))) continue;
      if (
        kind === 'creases' &&
        (fringes(found, claimed, picture) || strings(found, written, picture))
      )
        continue;
      if (kind !== 'mesh') {
        const met = found.pixels.reduce((sum, p) => sum + claimed[p]!, 0);
        if (met > SHARED * found.pixels.length) continue;
      }
      if (kept.length >= MOST_FINDINGS) break;
      kept.push(found);
      // Tones lie below other findings; and what is not sure takes nothing from what comes after.
      if (kind === 'stains' || found.odds <= 0) continue;
      for (const p of found.pixels) claimed[p] = 1;
      if (kind === 'ink') for (const p of found.pixels) written[p] = 1;
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

/** The order within kinds that claim together. */
function claimOf({ kind, odds }: Candidate): number {
  return kind === 'wires' ? odds + WIRES_FIRST : odds;
}

function findingOf(
  {
    kind,
    pixels,
    odds,
    polarity,
    tinted = false,
    onBoard = false,
    line,
    parts,
    size,
    soft,
    contrast,
  }: Candidate,
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
    ...(contrast === undefined ? {} : { contrast }),
    polarity,
    tinted,
    onBoard,
    score: scoreOf(odds),
  };
}
