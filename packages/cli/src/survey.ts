import type { Finding, Raster, SurveyOptions, SurveyPart, SurveyPartDone } from '@tersum/core';
import { candidatesBy, depthOf, FINDING_KINDS, findingsFrom, survey } from '@tersum/core';
import { sharedRaster } from '@tersum/codec';
import { compileInThreads } from '@tersum/threads';
import { Piscina } from 'piscina';

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
  if (!script || threads < 2) return survey(picture, options);
  compileInThreads();
  const pool = new Piscina({
    filename: script.href,
    minThreads: threads,
    maxThreads: threads,
    stricterFIFO: true,
    // What is built needs none of the loaders that the caller may run under.
    execArgv: [],
  });
  try {
    const candidates = await candidatesBy(
      <P extends SurveyPart>(halves: unknown, part: P) =>
        pool.run({ halves, part }) as Promise<SurveyPartDone<P>>,
      shared(picture),
      options.kinds ?? FINDING_KINDS,
    );
    return findingsFrom(picture, candidates, options);
  } finally {
    await pool.destroy();
  }
}

function shared(picture: Raster): Raster {
  if (picture.data.buffer instanceof SharedArrayBuffer) return picture;
  const copy = sharedRaster(picture.width, picture.height, picture.channels, depthOf(picture.data));
  copy.data.set(picture.data);
  return copy;
}
