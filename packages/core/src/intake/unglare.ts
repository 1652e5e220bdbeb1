import { layerAt } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { blurred, sampleAt } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, createRaster, depthOf, whiteOf } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { resampleBy } from '../raster/resample.js';
import type { Landmarks } from '../register/register.js';
import { landmarksOf, registered } from '../register/register.js';
import type { Homography } from '../shape/homography.js';
import { inverseOf, through } from '../shape/homography.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';

/** Several photographs of one print made into one. */
export interface Unglared {
  readonly picture: Raster;
  /** Takes each shot's px to the first one's; null for shots that show something else. */
  readonly maps: readonly (Homography | null)[];
  /** Share of the first shot that another one had to stand in for. */
  readonly replaced: number;
}

/** One shot laid over the first: its samples there, and where it has any. */
interface Laid {
  readonly raster: Raster;
  readonly valid: Uint8Array;
  /** Luma, lightly blurred and brought to the first shot's exposure, 0..255. */
  readonly luma: Plane;
  /** What each channel is multiplied by. */
  readonly gains: readonly Plane[];
}

/** Luma levels over the darkest shot from which on light is glare, and at which a shot counts no more. */
const GLARE = { from: 3, to: 9 } as const;
/** Share of the longer side over which the light of two shots may differ. */
const LIGHT = 1 / 10;

/**
 * Combines photographs of one flat print that were lit from different places: each is laid over the first one, their
 * light is made even, and where some are brighter than the darkest, which is how a reflection shows, those count less.
 * @param shots two to five pictures with the same channels and depth
 */
export function unglare(shots: readonly Raster[], task?: Task): Unglared {
  const [first] = shots;
  if (!first) throw new RangeError('there is no shot');
  const marks = shots.map((shot): Landmarks => landmarksOf(shot));
  checkpoint(task, 0.2);
  const maps = marks.map((m, k) => (k === 0 ? IDENTITY : (registered(m, marks[0]!)?.map ?? null)));
  checkpoint(task, 0.4);
  const target = lumaOf(first);
  const laid: Laid[] = [];
  shots.forEach((shot, k) => {
    const map = maps[k];
    if (!map) return;
    laid.push(k === 0 ? firstLaid(shot, target) : laidOver(shot, map, first, target));
    checkpoint(task, 0.4 + (0.4 * (k + 1)) / shots.length);
  });
  return { ...combined(first, laid), maps };
}

const IDENTITY: Homography = [1, 0, 0, 0, 1, 0, 0, 0, 1];

function firstLaid(raster: Raster, luma: Plane): Laid {
  return { raster, valid: new Uint8Array(raster.width * raster.height).fill(1), luma, gains: [] };
}

function laidOver(shot: Raster, map: Homography, first: Raster, target: Plane): Laid {
  const back = inverseOf(map);
  const point = (x: number, y: number, to: Float64Array): void => {
    const [u, v] = through(back, [x, y]);
    to[0] = u;
    to[1] = v;
  };
  const { raster, valid } = resampleBy(
    shot,
    frameOf(shot),
    point,
    1,
    frameOf(first),
    frameOf(shot),
  );
  const gains = gainsBetween(raster, valid, first);
  const luma = lumaOf(raster);
  const grey = gains.length > 1 ? meanOf(gains) : gains[0]!;
  const values = luma.values.map((v, p) => v * gainAt(grey, p, target.width, target.height));
  return { raster, valid, luma: { ...luma, values }, gains };
}

/** How much brighter the first shot is, smoothly over the picture, a channel; glare in either is left out. */
function gainsBetween(raster: Raster, valid: Uint8Array, first: Raster): Plane[] {
  const level = Math.max(0, Math.round(Math.log2(Math.max(first.width, first.height) / 160)));
  const [here, there] = [layerAt(raster, level), layerAt(first, level)];
  const { width, height } = here.grey;
  const side = 1 << level;
  const both = Uint8Array.from({ length: width * height }, (_, p) => {
    const x = (p % width) * side + (side >> 1);
    const y = Math.floor(p / width) * side + (side >> 1);
    return valid[y * first.width + x]!;
  });
  const pairs = here.colours.length
    ? here.colours.map((c, k) => [c, there.colours[k]!] as const)
    : [[here.grey, there.grey] as const];
  return pairs.map(([a, b]) => {
    const ratio = a.values.map((v, p) => Math.log((b.values[p]! + 4) / (v + 4)));
    return smoothRatio({ width, height, values: ratio }, both);
  });
}

/** Logarithms of ratios made smooth; those that deviate from their surroundings are taken out, again and again. */
function smoothRatio({ width, height, values }: Plane, known: Uint8Array): Plane {
  const whole = medianOf([...values].filter((_, p) => known[p]));
  let weight = Float32Array.from(known);
  let smooth = new Float32Array(values.length).fill(whole);
  for (const limit of [0.25, 0.12, 0.08]) {
    weight = Float32Array.from(values, (v, p) =>
      known[p] && Math.abs(v - smooth[p]!) < limit ? 1 : 0,
    );
    const sigma = LIGHT * Math.max(width, height);
    const sum = blurred(
      { width, height, values: values.map((v, p) => v * weight[p]!) },
      sigma,
    ).values;
    const share = blurred({ width, height, values: weight }, sigma).values;
    smooth = sum.map((s, p) => (s + 0.02 * whole) / (share[p]! + 0.02));
  }
  return { width, height, values: smooth.map(Math.exp) };
}

function meanOf(planes: readonly Plane[]): Plane {
  const [first] = planes as [Plane];
  return {
    ...first,
    values: first.values.map(
      (_, p) => planes.reduce((s, q) => s + q.values[p]!, 0) / planes.length,
    ),
  };
}

/** A coarse plane read at a pixel of the full one. */
function gainAt(plane: Plane, p: number, width: number, height: number): number {
  const x = (((p % width) + 0.5) * plane.width) / width - 0.5;
  const y = ((Math.floor(p / width) + 0.5) * plane.height) / height - 0.5;
  return sampleAt(plane, x, y);
}

function lumaOf(raster: Raster): Plane {
  return blurred(layerAt(raster, 0).grey, 1.5);
}

/** The mean of the shots, each counting by how little brighter it is than the darkest. */
function combined(first: Raster, laid: readonly Laid[]): { picture: Raster; replaced: number } {
  const { width, height, channels } = first;
  const picture = createRaster(width, height, channels, depthOf(first.data));
  picture.data.set(first.data);
  const colours = colourChannels(channels);
  const white = whiteOf(first.data);
  const half = white > 1 ? 0.5 : 0;
  const weights = laid.map(() => new Float32Array(width * height));
  for (let p = 0; p < width * height; p++) {
    let least = Infinity;
    for (const { luma, valid } of laid) if (valid[p]) least = Math.min(least, luma.values[p]!);
    // What is dark everywhere varies more in proportion: the limits grow with the tone.
    const wider = 1 + least / 128;
    laid.forEach(({ luma, valid }, k) => {
      if (!valid[p]) return;
      const t = ((luma.values[p]! - least) / wider - GLARE.from) / (GLARE.to - GLARE.from);
      weights[k]![p] = t <= 0 ? 1 : t >= 1 ? 0 : 1 - t * t * (3 - 2 * t);
    });
  }
  const soft = weights.map((values) => blurred({ width, height, values }, 2).values);
  let replaced = 0;
  for (let p = 0, i = 0; p < width * height; p++, i += channels) {
    let sum = 0;
    laid.forEach(({ valid }, k) => (sum += valid[p] ? soft[k]![p]! : 0));
    if (soft[0]![p]! < 0.5) replaced++;
    if (sum <= 0) continue;
    for (let c = 0; c < colours; c++) {
      let v = 0;
      laid.forEach(({ raster, valid, gains }, k) => {
        if (!valid[p]) return;
        const gain = gains.length ? gainAt(gains[c]!, p, width, height) : 1;
        v += soft[k]![p]! * raster.data[i + c]! * gain;
      });
      picture.data[i + c] = Math.min(white, v / sum + half);
    }
  }
  return { picture, replaced: replaced / (width * height) };
}
