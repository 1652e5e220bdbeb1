import { firstState } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf } from '../raster/rect.js';
import { deepestOf } from '../shape/depth.js';
import { maskBox } from '../shape/mask-box.js';
import { reachesBorder } from '../shape/reaches-border.js';
import type { Crew } from '../task/crew.js';
import { alone } from '../task/crew.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { Sheet } from './atlas.js';
import { atlasOf, fittingSheets } from './atlas.js';
import type { DonorMap } from './donor-map.js';
import type { Chance, Field } from './field.js';
import { fieldOf, matchFromCoarse } from './field.js';
import type { GuideLine } from './guides.js';
import { guidePaths, guidePull } from './guides.js';
import type { Manner } from './manner.js';
import { mannerFor } from './manner.js';
import { measureMatches } from './match.js';
import { ANYWHERE, farnessAt } from './farness.js';
import { pyramidOf } from './pyramid.js';
import type { RoughFill } from './rough.js';
import { roughOf } from './rough.js';
import { beginLevel, settleLevel } from './settle-level.js';
import { tellMap } from './tell.js';
import { withUnlike } from './kinds-near.js';
import { unlikeByChance } from './unlike.js';
import { vote } from './vote.js';

/** Options of {@link searchFill}. */
export interface FillOptions {
  /** Seed of chance. @default 1 */
  seed?: number;
  /** Weight of texture beside colour, as a multiple of what suits the hole's depth. @default 1 */
  texture?: number;
  /** Donors that may be laid otherwise than they stand. @default none */
  sheets?: readonly Sheet[];
  /** Lines of structure to be continued, in the window's coordinates. @default none */
  guides?: readonly GuideLine[];
  /** Whether a hole open to the picture's border takes nothing of a kind that is not seen near it. @default false */
  near?: boolean;
  /** Threads that share the work; the result does not depend on them. @default the calling thread alone */
  crew?: Crew;
  /** Called with what the filling comes to so far whenever a coarse level is done. */
  rough?: (filling: RoughFill) => void;
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
  const sheets = fittingSheets(window.height, options.sheets ?? []);
  const box = maskBox(hole, window.width);
  if (!box) throw new NothingToCopy('The site covers no pixel of the picture.');
  const middle = [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2] as const;
  const depth = deepestOf(hole, window.width, window.height);
  // A window ends beside the hole at the picture's border alone.
  const isOpen = reachesBorder(hole, window.width, window.height);
  const crew = options.crew ?? alone;
  const closed = options.near && isOpen ? withUnlike(window, hole, banned, depth, crew) : banned;
  const atlas = sheets.length
    ? atlasOf(window, hole, closed, sheets, middle)
    : { raster: window, hole, banned: closed, rows: 0 };
  const suited = mannerFor(depth);
  const manner = {
    ...suited,
    texture: Math.max(1, Math.round(suited.texture * (options.texture ?? 1))),
  };
  const pyramid = pyramidOf(atlas, depth, manner, crew);
  const { levels } = pyramid;
  const paths = options.guides?.length ? guidePaths(window, hole, options.guides) : null;
  pyramid.work.dice[0] = firstState(seed);
  let field: Field | null = null;
  let unlike = 0;
  let done = 0;
  const chanceAt = (k: number): Chance => ({
    reach: manner.reach >> k,
    sheets: sheets.length,
    rows: atlas.rows >> k,
  });
  const rounds = levels.map((_, k) => roundsAt(manner, k, levels.length));
  const work = levels.map((level, k) => rounds[k]! * level.width * level.height);
  const whole = work.reduce((a, b) => a + b, 0);
  const laid = sheets.length
    ? { window: { ...frameOf(window), x: origin.x, y: origin.y }, middle, sheets }
    : undefined;

  for (let k = levels.length - 1; k >= 0; k--) {
    const next = fieldOf(pyramid, k);
    if (next.sources.length < FEWEST_SOURCES && !(k === 0 && next.sources.length > 0)) continue;
    if (!next.holes.length) continue;
    // Sheets lie beside the window: how far off they are says nothing.
    if (!field && manner.far.open) unlike = unlikeByChance(next, chanceAt(k));
    const far = { depth, isOpen, unlike };
    const farness = sheets.length ? ANYWHERE : farnessAt(manner, far, next.level, k);
    const levelWork = {
      field: next,
      manner,
      farness,
      chance: chanceAt(k),
      rounds: field ? rounds[k]! : Math.max(8, rounds[k]!),
      isFinest: k === 0,
      seed: seed + 131 * k,
      pull: paths && guidePull(next, paths, k),
      check: (share: number) => checkpoint(task, (done + work[k]! * share) / whole),
      show: () => k > 0 && options.rough?.(roughOf(next.level, k, box, origin)),
    };
    if (field) {
      matchFromCoarse(next, field);
      measureMatches(next, farness);
      vote(next, manner.sharpness, 'half');
      settleLevel(levelWork);
    } else beginLevel(levelWork);
    done += work[k]!;
    field = next;
    levelWork.show();
  }
  if (!field) throw new NothingToCopy('There is nothing left around this site to copy from.');
  measureMatches(field);
  checkpoint(task, 1);
  return { ...tellMap(field, box, origin), laid };
}

function roundsAt({ rounds }: Manner, level: number, levels: number): number {
  if (level === levels - 1 && levels > 1) return rounds.first;
  return level === 0 ? 2 : Math.min(rounds.most, rounds.least + 3 * level);
}
