import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { deepestOf } from '../shape/depth.js';
import { maskBox } from '../shape/mask-box.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import { assignSources } from './assign.js';
import type { DonorMap } from './donor-map.js';
import { NOT_FILLED } from './donor-map.js';
import type { Field } from './field.js';
import { fieldOf, matchByChance, matchFromCoarse } from './field.js';
import type { Level } from './level.js';
import { finestLevel, HALF, halve, lessTexture } from './level.js';
import { improveMatches, measureMatches } from './match.js';
import { peelInwards } from './start.js';
import { vote } from './vote.js';

/** Options of {@link searchFill}. */
export interface FillOptions {
  /** Seed of chance. @default 1 */
  seed?: number;
  /** The pyramid ends when the deepest point of the hole is no deeper than this many px. @default 8 */
  coarsestDepth?: number;
}

/** A site that cannot be filled: the message says why, in a sentence for the person. */
export class NothingToCopy extends Error {}

const FEWEST_SOURCES = 64;

/**
 * Fill: decides for every hole pixel which pixel of the window it takes its content from.
 * Multi-scale synthesis by nearest patches and voting (Wexler et al. 2007; Barnes et al. 2009; Newson et al.
 * 2014), ended by single sources. What stands in the hole is never read.
 * @param window the picture below the site, any channels and depth
 * @param origin where the window lies in the original's coordinates
 * @param hole 1 = to be filled, one value a pixel of the window
 * @param banned 1 = must not be copied
 * @throws NothingToCopy when no whole patch may be copied
 * @throws Cancelled when the task is cancelled
 */
export function searchFill(
  window: Raster,
  origin: Rect,
  hole: Uint8Array,
  banned: Uint8Array,
  options: FillOptions = {},
  task?: Task,
): DonorMap {
  const seed = options.seed ?? 1;
  const levels = pyramidOf(finestLevel(window, hole, banned), options.coarsestDepth ?? 8);
  const random = seededRandom(seed);
  let field: Field | null = null;
  let done = 0;
  const work = levels.map((level, k) => rounds(k, levels.length) * level.width * level.height);
  const whole = work.reduce((a, b) => a + b, 0);

  for (let k = levels.length - 1; k >= 0; k--) {
    const next = fieldOf(levels[k]!);
    if (next.sources.length < FEWEST_SOURCES && !(k === 0 && next.sources.length > 0)) continue;
    if (!next.holes.length) continue;
    if (field) {
      matchFromCoarse(next, field, random);
      measureMatches(next);
      vote(next, 0.5);
    } else {
      peelInwards(next.level, next.holes);
      matchByChance(next, random);
    }
    const count: number = field ? rounds(k, levels.length) : Math.max(8, rounds(k, levels.length));
    const passes = k === 0 ? 2 : 4;
    for (let round = 0; round < count; round++) {
      checkpoint(task, (done + (work[k]! * round) / count) / whole);
      measureMatches(next);
      for (let pass = 0; pass < passes; pass++)
        improveMatches(next, pass + round * passes, seed + 131 * k);
      vote(next, k === 0 && round === count - 1 ? 0.08 : 0.5);
    }
    done += work[k]!;
    field = next;
  }
  if (!field) throw new NothingToCopy('There is nothing left around this site to copy from.');
  measureMatches(field);
  checkpoint(task, 1);
  return mapOf(field, origin, banned);
}

/** How far around a hole of this depth (px) sources are looked for. */
export function searchMargin(depth: number): number {
  return Math.round(Math.min(384, 48 + 6 * depth));
}

function rounds(level: number, levels: number): number {
  if (level === levels - 1 && levels > 1) return 24;
  return level === 0 ? 3 : Math.min(16, 6 + 4 * level);
}

function pyramidOf(finest: Level, coarsestDepth: number): Level[] {
  const levels = [finest];
  let depth = deepestOf(finest.hole, finest.width, finest.height);
  for (;;) {
    const last = levels[levels.length - 1]!;
    if (depth <= coarsestDepth || Math.min(last.width, last.height) < 16 * HALF) break;
    levels.push(halve(last));
    depth /= 2;
  }
  return [lessTexture(finest), ...levels.slice(1)];
}

function mapOf(field: Field, origin: Rect, banned: Uint8Array): DonorMap {
  const { width, hole } = field.level;
  const allowed = new Uint8Array(hole.length);
  for (let p = 0; p < hole.length; p++) allowed[p] = hole[p] || banned[p] ? 0 : 1;
  const sourceOf = assignSources(field, allowed);
  const rect = maskBox(hole, width)!;
  const n = rect.width * rect.height;
  const dx = new Int16Array(n).fill(NOT_FILLED);
  const dy = new Int16Array(n).fill(NOT_FILLED);
  for (const p of field.holes) {
    const x = p % width;
    const y = Math.floor(p / width);
    const from = sourceOf[p]!;
    const i = (y - rect.y) * rect.width + x - rect.x;
    dx[i] = (from % width) - x;
    dy[i] = Math.floor(from / width) - y;
  }
  return { rect: { ...rect, x: rect.x + origin.x, y: rect.y + origin.y }, dx, dy };
}
