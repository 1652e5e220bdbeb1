import { firstState } from '../random/random.js';
import { medianOf } from '../raster/median.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, sampleBytes, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { grow, intersect } from '../raster/rect.js';
import { openArena } from '../wasm/arena.js';
import type { RepairFunctions, RepairKernel } from './kernel.js';
import { functionsFor } from './kernel.js';
import { REPAIR_KERNEL } from './repair-kernel.js';

/** px round a site in which its surroundings' grain is measured; {@link grainBack} has to be shown as much. */
export const GRAIN_RING = 20;
/** Share of what is missing that a fill is given back: the rest of it is often structure that only the surroundings have. */
export const GRAIN_SHARE = 0.7;
/** Shares of a site's pixels that lie well inside it between which it comes to need grain: narrow ones hardly show any. */
const [NARROW, BROAD] = [0.53, 0.68];
/** What the B3 spline, which takes the finest detail off, reads of either side (Starck, Murtagh, "Astronomical Image and Data Analysis", 2002). */
const HALF = 2;
/** Median size of what the spline takes off white noise of deviation 1: 0.6745 of a normal law, times the filter's own 0.8908. */
const SHARE = 0.6745 * 0.8908;
/** Fewest pixels that say anything of grain. */
const LEAST = 60;
/** Pixels that are asked, about, and those outside that are looked at for it. */
const ASKED = 4000;
const LOOKED_AT = 10 * ASKED;

/**
 * Gives a repair the grain its surroundings have and it lacks: noise of one deviation for the whole site, alike in all
 * channels, added to what was computed. Exact: free of transcendental functions, the same bytes everywhere.
 * @param picture the repaired pixels with their surroundings; left as it is
 * @param coverage 0..1, a value a pixel @param share 0..1 of what is missing; up to {@link GRAIN_SHARE} less where the site is narrow
 * @param seed of the noise
 */
export function grainBack(
  picture: Raster,
  coverage: Float32Array,
  share: number,
  seed: number,
): Raster {
  const { width, height, data } = picture;
  const out = { ...picture, data: data.slice() };
  const laid = layDown(picture, coverage);
  const site = boxOf(laid);
  if (!site) return out;
  const near = intersect(grow(site, GRAIN_RING), { x: 0, y: 0, width, height });
  const inside = placesOf(laid, near, true);
  if (!inside) return out;
  const needed = Math.min(1, Math.max(0, (inside.share - NARROW) / (BROAD - NARROW)));
  // Who asks for more than is usual has seen that it lacks.
  const wanted = Math.max(needed, (share - GRAIN_SHARE) / (1 - GRAIN_SHARE));
  if (wanted <= 0) return out;
  laid.samples.set(sampleBytes(data));
  const grained = finenessOf(laid, inside.count);
  const outside = placesOf(laid, near, false);
  const lacking = outside ? finenessOf(laid, outside.count) ** 2 - grained ** 2 : 0;
  if (lacking <= 0) return out;
  const { kernel, samples, cover } = laid;
  kernel.grain(
    samples.byteOffset,
    cover.byteOffset,
    ...formOf(picture),
    ...[site.x, site.y, site.x + site.width, site.y + site.height],
    (wanted * share * Math.sqrt(lacking)) / SHARE,
    whiteOf(data),
    firstState(seed),
  );
  sampleBytes(out.data).set(samples);
  return out;
}

/** The box of what is covered at all. */
function boxOf({ picture: { width, height }, kernel, cover, counts }: Laid): Rect | null {
  counts.fill(0);
  kernel.box(cover.byteOffset, width, height, counts.byteOffset);
  const [left, top, right, bottom] = counts as unknown as readonly [number, number, number, number];
  return right ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}

/** A picture's width, channels and colours. */
function formOf({ width, channels }: Raster): [width: number, channels: number, colours: number] {
  return [width, channels, colourChannels(channels)];
}

/** A picture and its coverage in a kernel's memory, with room for pixels and for what is told of some of them. */
interface Laid {
  readonly picture: Raster;
  readonly kernel: RepairFunctions;
  readonly samples: Uint8Array;
  readonly cover: Float32Array;
  readonly places: Int32Array;
  readonly counts: Int32Array;
  readonly sizes: Float64Array;
}

function layDown(picture: Raster, coverage: Float32Array): Laid {
  const { data } = picture;
  const bytes = data.byteLength + 8 * coverage.length + 4 * 4 + 8 * 2 * ASKED;
  const arena = openArena<RepairKernel>(REPAIR_KERNEL, bytes, 5, {
    once: true,
    shared: true,
  });
  const cover = arena.floats(coverage.length);
  cover.set(coverage);
  return {
    picture,
    kernel: functionsFor(arena.kernel, data.BYTES_PER_ELEMENT),
    samples: arena.bytes(data.byteLength),
    cover,
    places: arena.words(coverage.length),
    counts: arena.words(4),
    sizes: arena.doubles(2 * ASKED),
  };
}

/**
 * Lays down the pixels wholly inside, or wholly outside, whose finest detail can be told: all of the spline lies on their side.
 * @returns how many they are, and their share of all on that side; null of too few
 */
function placesOf(
  { picture: { width, height }, kernel, cover, places, counts }: Laid,
  near: Rect,
  within: boolean,
): { readonly count: number; readonly share: number } | null {
  // Round a large site a part of the pixels says as much.
  const step = within ? 1 : Math.max(1, Math.floor((near.width * near.height) / LOOKED_AT));
  kernel.places(
    cover.byteOffset,
    width,
    Math.max(near.x, HALF),
    Math.max(near.y, HALF),
    Math.min(near.x + near.width, width - HALF),
    Math.min(near.y + near.height, height - HALF),
    step,
    within ? 1 : 0,
    places.byteOffset,
    counts.byteOffset,
  );
  const [count, all] = counts as unknown as readonly [number, number];
  return count < LEAST ? null : { count, share: count / all };
}

/** Median size of the finest detail at the pixels that are laid down, codes. */
function finenessOf({ picture, kernel, samples, places, sizes }: Laid, count: number): number {
  const each = Math.max(1, Math.floor(count / ASKED));
  const [from, into] = [places.byteOffset, sizes.byteOffset];
  kernel.fineness(samples.byteOffset, ...formOf(picture), from, count, each, into);
  return medianOf(sizes.subarray(0, Math.ceil(count / each)));
}
