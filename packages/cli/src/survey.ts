import { Worker } from 'node:worker_threads';
import type { Candidate, Finding, Raster, Studied, SurveyOptions } from '@tersum/core';
import {
  depthOf,
  FINDING_KINDS,
  findingsFrom,
  GATHERINGS,
  studiedFor,
  studiesFor,
  survey,
} from '@tersum/core';
import { sharedRaster } from '@tersum/codec';
import type { SurveyPart } from './study.js';

/**
 * Surveys a picture, its parts side by side.
 * @param script what a thread runs; null for the calling thread alone
 */
export async function surveyed(
  picture: Raster,
  options: SurveyOptions,
  threads: number,
  script: URL | null,
): Promise<Finding[]> {
  const studies = studiesFor(picture, options.kinds ?? FINDING_KINDS);
  if (!script || threads < 2 || studies.length < 2) return survey(picture, options);
  const view = shared(picture);
  const workers = Array.from(
    { length: Math.min(threads, studies.length) },
    () => new Worker(script),
  );
  try {
    const studied = await onThreads<Studied>(
      workers,
      studies.map((work) => ({ picture: view, work })),
    );
    const candidates = await onThreads<Candidate>(
      workers,
      GATHERINGS.map((of) => ({ picture: view, of, studied: studiedFor(of, studied) })),
    );
    return findingsFrom(picture, candidates, options);
  } finally {
    await Promise.all(workers.map((worker) => worker.terminate()));
  }
}

function shared(picture: Raster): Raster {
  if (picture.data.buffer instanceof SharedArrayBuffer) return picture;
  const copy = sharedRaster(picture.width, picture.height, picture.channels, depthOf(picture.data));
  copy.data.set(picture.data);
  return copy;
}

/** What the parts come to, in the order of the parts whichever thread is first: the same every time. */
async function onThreads<Result>(
  workers: readonly Worker[],
  parts: readonly SurveyPart[],
): Promise<Result[]> {
  const done: Result[][] = [];
  let next = 0;
  await Promise.all(
    workers.map(async (worker) => {
      for (let k = next++; k < parts.length; k = next++)
        done[k] = await new Promise<Result[]>((resolve, reject) => {
          worker.once('message', resolve).once('error', reject);
          worker.postMessage(parts[k]);
        });
    }),
  );
  return done.flat();
}
