import { parentPort } from 'node:worker_threads';
import type { Raster, Study } from '@tersum/core';
import { study } from '@tersum/core';

/** A thread of a survey: does the studies it is given, one after the other. */
parentPort?.on('message', ({ picture, work }: { picture: Raster; work: Study }) => {
  parentPort!.postMessage(study(picture, work));
});
