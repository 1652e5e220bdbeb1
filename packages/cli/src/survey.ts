import { Worker } from 'node:worker_threads';
import type { Finding, Raster, Studied, Study, SurveyOptions } from '@tersum/core';
import { depthOf, FINDING_KINDS, findingsFrom, studiesFor, study } from '@tersum/core';
import { sharedRaster } from '@tersum/codec';

/**
 * Surveys a picture, its studies side by side.
 * @param script what a thread runs; null for the calling thread alone
 */
export async function surveyed(
  picture: Raster,
  options: SurveyOptions,
  threads: number,
  script: URL | null,
): Promise<Finding[]> {
  const studies = studiesFor(picture, options.kinds ?? FINDING_KINDS);
  const studied =
    script && threads > 1 && studies.length > 1
      ? await onThreads(shared(picture), studies, Math.min(threads, studies.length), script)
      : studies.flatMap((work) => study(picture, work));
  return findingsFrom(picture, studied, options);
}

function shared(picture: Raster): Raster {
  if (picture.data.buffer instanceof SharedArrayBuffer) return picture;
  const copy = sharedRaster(picture.width, picture.height, picture.channels, depthOf(picture.data));
  copy.data.set(picture.data);
  return copy;
}

async function onThreads(
  picture: Raster,
  studies: readonly Study[],
  threads: number,
  script: URL,
): Promise<Studied[]> {
  const done: Studied[][] = [];
  let next = 0;
  const workers = Array.from({ length: threads }, () => new Worker(script));
  try {
    await Promise.all(
      workers.map(async (worker) => {
        // Results are kept by the number of their study, so that their order is always the same.
        for (let k = next++; k < studies.length; k = next++)
          done[k] = await new Promise<Studied[]>((resolve, reject) => {
            worker.once('message', resolve).once('error', reject);
            worker.postMessage({ picture, work: studies[k] });
          });
      }),
    );
  } finally {
    await Promise.all(workers.map((worker) => worker.terminate()));
  }
  return done.flat();
}
