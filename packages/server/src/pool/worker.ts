import { randomUUID } from 'node:crypto';
import { open } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { workerData } from 'node:worker_threads';
import type { Raster } from '@tersum/core';
import { Cancelled, depthOf, frameOf, NothingToCopy, study } from '@tersum/core';
import {
  addedRecord,
  compose,
  displayPyramid,
  findingRecords,
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
} from '@tersum/document';
import type { SearchHelp } from '@tersum/document';
import { ThreadCrew } from '@tersum/threads';
import sharp from 'sharp';
import { decode, encode, readMetadata, shareBytes, sharedRaster, UserProblem } from '@tersum/codec';
import type { Answer, Answers, Said, Wire, WorkerSetup, WorkerTask } from './tasks.js';
import { warmUp } from './warm-up.js';

sharp.cache(false);
// The first stroke should not wait for code that was never run.
if ((workerData as Partial<WorkerSetup> | null)?.warm) warmUp();

/** One task from the pool, start to finish. */
export default async function work(task: WorkerTask): Promise<Answer<keyof Answers>> {
  try {
    return { ok: await perform(task) };
  } catch (error) {
    if (error instanceof UserProblem) return { problem: error.message, status: error.status };
    if (error instanceof Cancelled) return { cancelled: true };
    if (error instanceof NothingToCopy) return { unmendable: error.message };
    throw error;
  }
}

async function perform(task: WorkerTask): Promise<Answers[keyof Answers]> {
  switch (task.kind) {
    case 'open': {
      const decoded = await decode(task.path);
      return { ...decoded, pyramid: displayPyramid(decoded.raster).map(toShared) };
    }
    case 'replay': {
      const patch = replay(task);
      return { ...patch, samples: toShared(patch.samples), mask: shareBytes(patch.mask) };
    }
    case 'search':
      return watched(task, (help) => searchDonorMap(task, help));
    case 'variant':
      return watched(task, (help) => searchVariant(task, help));
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
    case 'added':
      return addedRecord(task.original, task.at, randomUUID());
    case 'study':
      return study(task.original, task.work);
    case 'findings':
      return findingRecords(task.original, task.studied, randomUUID);
    case 'export': {
      const { icc, exif } = await readMetadata(task.source);
      const raster = compose(task.original, task.patches, frameOf(task.original));
      const baggage = { icc: icc ?? null, exif: exif ?? null, ppi: task.ppi };
      const file = await encode(raster, task.format, task.quality, baggage);
      const handle = await open(task.to, 'w');
      try {
        await handle.writeFile(file);
        await handle.sync();
      } finally {
        await handle.close();
      }
      return { bytes: file.length };
    }
  }
}

/** Several searches run at once; more threads than this for each would only wait for one another. */
const MOST_THREADS = 4;
let crew: ThreadCrew | null = null;

/** Runs a search that its wire watches and can end, on several threads. */
function watched<T>({ wire }: { readonly wire: Wire }, act: (help: SearchHelp) => T): T {
  const { cancelled, port } = wire;
  const say = (said: Said): void => port.postMessage(said);
  let told = 0;
  crew ??= new ThreadCrew(Math.min(MOST_THREADS, availableParallelism()));
  try {
    return act({
      crew,
      rough: say,
      task: {
        signal: {
          get aborted() {
            return Atomics.load(cancelled, 0) === 1;
          },
        },
        progress(share) {
          if (share - told < 0.02) return;
          told = share;
          say(share);
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
