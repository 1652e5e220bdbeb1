import { blurred } from '../raster/plane.js';
import { frameOf } from '../raster/rect.js';
import { coverageOf } from '../shape/coverage.js';
import type { Point } from '../shape/site.js';
import type { ToneMask, TonePlace, ToneStroke } from './step.js';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** How much of each pixel of a region a mask lets through, 0..1. */
export function maskCoverage(mask: ToneMask, region: Size, place: TonePlace): Float32Array {
  const cover = plainCoverage(mask, region, place);
  return mask.inverted ? cover.map((v) => 1 - v) : cover;
}

function plainCoverage(mask: ToneMask, region: Size, place: TonePlace): Float32Array {
  if (mask.kind === 'gradient') return ramped(mask.from, mask.to, region, place);
  if (mask.kind === 'painted')
    return feathered(
      strokesCoverage(mask.strokes, 0.5, region, place),
      mask.feather,
      region,
      place,
    );
  const points = mask.points.map((p) => regionPoint(p, place));
  const brush = { width: 1, softness: 0, flow: 1 };
  const inside = laid(coverageOf({ kind: 'outline', points }, brush, frameOf(region)), region);
  return feathered(inside, mask.feather, region, place);
}

/** What strokes cover of a region; where they cross, the one that covers most counts. */
export function strokesCoverage(
  strokes: readonly ToneStroke[],
  softness: number,
  region: Size,
  place: TonePlace,
): Float32Array {
  const out = new Float32Array(region.width * region.height);
  for (const { points, width } of strokes) {
    const shape = { kind: 'stroke' as const, points: points.map((p) => regionPoint(p, place)) };
    const brush = { width: Math.max(0.5, width / place.scale), softness, flow: 1 };
    const cover = laid(coverageOf(shape, brush, frameOf(region)), region);
    for (let p = 0; p < out.length; p++) if (cover[p]! > out[p]!) out[p] = cover[p]!;
  }
  return out;
}

/** A point of the picture in a region's pixels. */
function regionPoint([x, y]: Point, place: TonePlace): Point {
  return [(x + 0.5 - place.x) / place.scale - 0.5, (y + 0.5 - place.y) / place.scale - 0.5];
}

function laid(
  { rect, values }: ReturnType<typeof coverageOf>,
  { width, height }: Size,
): Float32Array {
  const out = new Float32Array(width * height);
  for (let y = 0; y < rect.height; y++)
    out.set(values.subarray(y * rect.width, (y + 1) * rect.width), (rect.y + y) * width + rect.x);
  return out;
}

/** A border softened over about `feather` px to either side. */
function feathered(
  values: Float32Array,
  feather: number,
  { width, height }: Size,
  place: TonePlace,
): Float32Array {
  const sigma = feather / place.scale / 2;
  return sigma < 0.3 ? values : blurred({ width, height, values }, sigma).values;
}

function ramped(from: Point, to: Point, { width, height }: Size, place: TonePlace): Float32Array {
  const out = new Float32Array(width * height);
  const [x0, y0] = regionPoint(from, place);
  const [x1, y1] = regionPoint(to, place);
  const [dx, dy] = [x1 - x0, y1 - y0];
  const size = dx * dx + dy * dy || 1;
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const t = ((x - x0) * dx + (y - y0) * dy) / size;
      const k = t < 0 ? 0 : t > 1 ? 1 : t;
      out[p] = k * k * (3 - 2 * k);
    }
  return out;
}
