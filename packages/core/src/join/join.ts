import { digest } from '../raster/digest.js';
import { layerAt } from '../raster/layers.js';
import type { Channels, Raster } from '../raster/raster.js';
import { sampleBytes, colourChannels, depthOf } from '../raster/raster.js';
import type { Plane } from '../raster/plane.js';
import { halved } from '../raster/plane.js';
import { landmarksOf } from '../register/register.js';
import type { Homography } from '../shape/homography.js';
import type { Crew } from '../task/crew.js';
import { alone } from '../task/crew.js';
import type { Task } from '../task/task.js';
import { checkpoint, portionOf } from '../task/task.js';
import { camerasOf, mapsTo } from './cameras.js';
import { composed } from './compose.js';
import { evenedPlanes } from './evening.js';
import { labelsOf, labelStep } from './labels.js';
import { lightOf } from './light.js';
import { chainOf, linksOf } from './links.js';
import type { Projection } from './surface.js';
import { surfaceOf } from './surface.js';

export interface JoinOptions {
  /**
   * What the frames are laid on.
   * @default 'auto', a plane up to 72 degrees across, else a cylinder
   */
  readonly projection?: Projection | 'auto';
  /** Threads that help. @default the calling one alone */
  readonly crew?: Crew;
}

/** Several frames as one picture. */
export interface Joined {
  /** Black where no frame reaches. */
  readonly picture: Raster;
  /** 1 where a frame reaches. */
  readonly covered: Uint8Array;
  readonly projection: Projection;
  /** Focal length, px, when the frames were taken from one point. */
  readonly focal: number | null;
  /** Takes each frame's px to those of the first frame that belongs; null for frames that do not. */
  readonly maps: readonly (Homography | null)[];
  /** Frames that show nothing the others show. */
  readonly unused: readonly number[];
  /** Each frame's exposure beside the mean, EV; null for frames that do not belong. */
  readonly exposures: readonly (number | null)[];
}

/** Thrown when no two frames show the same things. */
export class NothingInCommon extends Error {}

/** Corners a frame; the overlap shows a part of them. */
const CORNERS = 600;
/** px across from which on a frame is too large to be compared for its light. */
const BROAD = 240;

/**
 * Joins overlapping frames: registered in pairs, cameras solved together, light evened, cut where they are alike and
 * blended by bands (Brown, Lowe 2007; Burt, Adelson 1983). The order of the frames plays no part.
 * @param given two or more pictures; grey ones are joined as colour when another has any
 * @throws NothingInCommon, CannotLay
 */
export function join(
  given: readonly Raster[],
  { projection = 'auto', crew = alone }: JoinOptions = {},
  task?: Task,
): Joined {
  // The same frames in any order are worked on in one order, so that the result is the same to the last bit.
  const names = given.map((g) => digest(sampleBytes(g.data)));
  const order = given
    .map((_, k) => k)
    .sort((a, b) => (names[a]! < names[b]! ? -1 : names[a]! > names[b]! ? 1 : a - b));
  const pictures = order.map((k) => given[k]!);
  const sizes = pictures.map(({ width, height }) => ({ width, height }));
  const marks = pictures.map((p, k) => {
    checkpoint(task, (0.2 * k) / pictures.length);
    return landmarksOf(p, CORNERS, crew);
  });
  const links = linksOf(marks, crew, portionOf(task, 0.2, 0.5));
  const chain = chainOf(pictures.length, links);
  if (chain.frames.length < 2)
    throw new NothingInCommon('these pictures show too little in common to be joined');
  const geometry = camerasOf(sizes, links, chain);
  const surface = surfaceOf(geometry, sizes, projection);
  checkpoint(task, 0.55);
  const channels = Math.max(...pictures.map((p) => colourChannels(p.channels))) as Channels;
  const depths = pictures.map((p) => depthOf(p.data));
  const depth = depths.includes('f32') ? 'f32' : depths.includes('u16') ? 'u16' : 'u8';
  const planes = pictures.map((p, k) => {
    if (!surface.toFrame[k]) return null;
    const { grey, colours } = layerAt(p, Math.floor(Math.log2(labelStep(surface))));
    return colours.length ? colours : [grey];
  });
  const light = lightOf(
    planes.map((p) => p && smallOf(p)),
    sizes,
    surface,
  );
  const evenings = light.gains.map((gains) => gains && { gains, falloff: light.falloff });
  checkpoint(task, 0.6);
  const labels = labelsOf(
    planes.map((p, k) => p && evenedPlanes(p, sizes[k]!, evenings[k]!)),
    sizes,
    surface,
  );
  const { picture, covered } = composed(
    pictures,
    evenings,
    labels,
    surface,
    channels,
    depth,
    crew,
    portionOf(task, 0.7, 1),
  );
  const place = order.map((_, k) => order.indexOf(k));
  const first = place.find((k) => surface.toFrame[k])!;
  const maps = mapsTo(first, geometry, sizes);
  const mean = (g: readonly number[]): number => g.reduce((s, v) => s + Math.log2(v), 0) / g.length;
  return {
    picture,
    covered,
    projection: surface.projection,
    focal: geometry.kind === 'turned' ? geometry.focal : null,
    maps: place.map((k) => maps[k]!),
    unused: place.flatMap((k, frame) => (surface.toFrame[k] ? [] : [frame])),
    exposures: place.map((k) => (light.gains[k] ? -mean(light.gains[k]) : null)),
  };
}

/** Planes small enough for a place of them to be the mean of many pixels. */
function smallOf(planes: readonly Plane[]): readonly Plane[] {
  return planes[0]!.width < BROAD ? planes : smallOf(planes.map(halved));
}
