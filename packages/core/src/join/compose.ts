import { convertRaster } from '../raster/convert.js';
import type { Channels, Depth, Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import type { Crew } from '../task/crew.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import { JoinCanvas } from './canvas.js';
import type { Evening } from './evening.js';
import type { Labels } from './labels.js';
import { NOBODY } from './seams.js';
import type { Surface } from './surface.js';

/**
 * The frames put together, each counting where the labels give it the canvas, evened in linear light.
 * @param channels, depth of the result
 * @returns the picture, black where no frame reaches, and 1 a pixel where one does
 * @throws CannotLay when the canvas would be too large
 */
export function composed(
  frames: readonly (Raster | null)[],
  evenings: readonly (Evening | null)[],
  labels: Labels,
  surface: Surface,
  channels: Channels,
  depth: Depth,
  crew: Crew,
  task?: Task,
): { picture: Raster; covered: Uint8Array } {
  const coded = frames.flatMap((frame, owner) => {
    const [to, box, evening] = [surface.toFrame[owner], surface.boxes[owner], evenings[owner]];
    return frame && to && box && evening
      ? [{ frame: convertRaster(frame, channels, codesOf(frame)), owner, to, box, evening }]
      : [];
  });
  const canvas = new JoinCanvas(
    surface,
    coded.map((c) => c.frame),
    labels,
    crew,
  );
  for (const { frame, owner, to, box } of coded) canvas.claim(frame, owner, to, box);
  coded.forEach(({ frame, owner, to, box, evening }, k) => {
    checkpoint(task, (0.9 * k) / coded.length);
    canvas.add(frame, owner, to, box, evening);
  });
  checkpoint(task, 0.9);
  const picture = createRaster(surface.width, surface.height, channels, depth);
  canvas.finish(picture);
  return { picture, covered: canvas.owners.map((o) => (o === NOBODY ? 0 : 1)).slice() };
}

/** Whole samples: floats are taken to 16 bits. */
function codesOf(frame: Raster): Depth {
  return depthOf(frame.data) === 'u8' ? 'u8' : 'u16';
}
