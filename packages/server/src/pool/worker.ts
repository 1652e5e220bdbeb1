import { randomUUID } from 'node:crypto';
import { availableParallelism } from 'node:os';
import { workerData } from 'node:worker_threads';
import type { Raster } from '@tersum/core';
import {
  actsOf,
  autoTone,
  blocksIn,
  Cancelled,
  CannotStretch,
  depthOf,
  detailReach,
  frameOf,
  greyChoice,
  levelsOf,
  NothingToCopy,
  onCanvas,
  printsOn,
  pullsLeft,
  surveyPart,
  tiltOf,
  toItsEnds,
  uprightPrint,
} from '@tersum/core';
import {
  addedRecord,
  compose,
  displayPyramid,
  finished,
  findingRecords,
  proofOf,
  reducedPart,
  replay,
  searchAdvice,
  searchDonorMap,
  searchDonors,
  searchGrounds,
  searchGuides,
  searchLine,
  searchPortions,
  searchRegion,
  searchTwins,
  searchVariant,
  subjectOutlines,
  backdropOutlines,
} from '@tersum/document';
import type { SearchHelp } from '@tersum/document';
import { ThreadCrew } from '@tersum/threads';
import sharp from 'sharp';
import { decode, shareBytes, sharedRaster, UserProblem } from '@tersum/codec';
import type { Answer, Answers, Said, Wire, WorkerSetup, WorkerTask } from './tasks.js';
import { exported, prepared, save, takenApart } from './files.js';
import { joinPlan } from './join-plan.js';
import { makePictures } from './making.js';
import { widenBothWays } from './widen.js';
import { pacedBy } from './pace.js';
import { warmUp } from './warm-up.js';

sharp.cache(false);
/** The threads that this one works with, once it needs them. */
const crews: ThreadCrew[] = [];
// The first stroke should not wait for code that was never run.
const { warm = null } = (workerData as Partial<WorkerSetup> | null) ?? {};
if (warm) warmUp(warm, crewOfOwn);

/** One task from the pool, start to finish. */
export default async function work(task: WorkerTask): Promise<Answer<keyof Answers>> {
  try {
    return { ok: await perform(task) };
  } catch (error) {
    if (error instanceof UserProblem) return { problem: error.message, status: error.status };
    if (error instanceof Cancelled) return { cancelled: true };
    if (error instanceof NothingToCopy || error instanceof CannotStretch)
      return { unmendable: error.message };
    throw error;
  }
}

async function perform(task: WorkerTask): Promise<Answers[keyof Answers]> {
  switch (task.kind) {
    case 'open': {
      const decoded = await decode(task.path);
      return { ...decoded, pyramid: displayPyramid(decoded.raster).map(toShared) };
    }
    case 'join plan':
      return watched(task, ({ crew, task: watch }) => joinPlan(task, crew, watch));
    case 'subject':
      return subjectOutlines(task.original, task.patches, task.marked);
    case 'backdrop':
      return backdropOutlines(task.original, task.patches, task.marked);
    case 'canvas': {
      const { at: _, ...laid } = onCanvas(task.original, task.on);
      const raster = { ...toShared(laid), at: [task.on.x, task.on.y] as const };
      return { raster, pyramid: displayPyramid(laid).map(toShared) };
    }
    case 'replay': {
      const patch = replay(task, crewOfOwn());
      return { ...patch, samples: toShared(patch.samples), mask: shareBytes(patch.mask) };
    }
    case 'search':
      return watched(task, (help) => searchDonorMap(task, help));
    case 'variant':
      return watched(task, (help) => searchVariant(task, help));
    case 'make':
      return watched(task, ({ crew, task: watch }) => makePictures(task, crew, watch));
    case 'widen':
      return watched(task, ({ crew, task: watch }) => widenBothWays(task, crew, watch));
    case 'proof': {
      const { original, patches, due } = task;
      return watched(task, ({ task: watch }) => proofOf(original, patches, due, watch));
    }
    case 'prepare':
      return watched(task, ({ task: watch }) => prepared(task, watch));
    case 'blocks':
      return blocksIn(task.original);
    case 'layers':
      return takenApart(task);
    case 'pulls':
      return pullsLeft(compose(task.original, task.patches, frameOf(task.original)));
    case 'grounds':
      return searchGrounds(task);
    case 'guides':
      return searchGuides(task, task.sure);
    case 'portions':
      return searchPortions(task);
    case 'donors':
      return searchDonors(task.repair, task.original, task.below, task.others, task.wishes);
    case 'twins':
      return searchTwins(task.repair, task.original, task.below, task.others);
    case 'advice':
      return searchAdvice(task.repair, task.original, task.below);
    case 'region':
      return searchRegion(task.original, task.scribble);
    case 'line':
      return searchLine(task.original, task.from, task.to);
    case 'ends':
      return toItsEnds(task.original, task.line);
    case 'added':
      return addedRecord(task.original, task.at, randomUUID());
    case 'survey part':
      return surveyPart(task.halves, task.part);
    case 'findings':
      return findingRecords(task.original, task.candidates, randomUUID);
    case 'part':
      return toShared(reducedPart(task.original, task.patches, task.rect, task.factor));
    case 'tilt':
      return tiltOf(task.original);
    case 'detail':
      return detailReach(task.original);
    case 'prints':
      return printsOn(task.original);
    case 'channels':
      return greyChoice(task.original);
    case 'fade':
      // What is cropped away, a scanner's lid for instance, says nothing of the print.
      return actsOf(
        autoTone(finished(task.original, task.patches, { tones: [], frames: task.frames })),
      );
    case 'levels':
      return levelsOf(finished(task.original, task.patches, task.finishing), task.share);
    case 'cut':
      return save(task, uprightPrint(task.original, task.quad), 'tiff', 100);
    case 'export':
      return watched(task, ({ task: watch }) => exported(task, watch));
  }
}

function crewOfOwn(): ThreadCrew {
  // Several searches run at once; more threads than this for each would only wait for one another.
  return (crews[0] ??= new ThreadCrew(Math.min(4, availableParallelism())));
}

/** How long after the last news the next is worth the work of showing it, ms: that work is taken from the search. */
const ROUGH_PACE = 150;
const SHARE_PACE = 100;

type Watch = Required<Pick<SearchHelp, 'crew' | 'rough' | 'task'>>;

/** Runs a search that its wire watches and can end, on several threads. */
async function watched<T>(
  { wire }: { readonly wire: Wire },
  act: (help: Watch) => T | Promise<T>,
): Promise<T> {
  const { cancelled, port } = wire;
  const say = (said: Said): void => port.postMessage(said);
  const [roughIsDue, shareIsDue] = [pacedBy(ROUGH_PACE), pacedBy(SHARE_PACE)];
  try {
    return await act({
      crew: crewOfOwn(),
      rough: (filling) => roughIsDue() && say(filling),
      task: {
        signal: {
          get aborted() {
            return Atomics.load(cancelled, 0) === 1;
          },
        },
        progress(share) {
          if (shareIsDue()) say(share);
        },
      },
    });
  } finally {
    port.close();
  }
}

function toShared(raster: Raster): Raster {
  if (raster.data.buffer instanceof SharedArrayBuffer) return raster;
  const copy = sharedRaster(raster.width, raster.height, raster.channels, depthOf(raster.data));
  copy.data.set(raster.data);
  return copy;
}
