import type { Lab } from '../colour/lab.js';
import { labOfSrgb } from '../colour/lab.js';
import { medianOf } from '../raster/median.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { gathered, piecesOf } from './pieces.js';

/** A mark may be so large, as a share of the picture's longer side. */
const LARGEST = 0.4;
/** Steps of lightness in which the ground's own hue is told; the share of a step that is surely ground. */
const STEPS = 20;
const GROUND = 0.12;
/** Share of the way from the ground's hue to the mark's from which on a pixel is the mark's. */
const HALFWAY = 0.26;
/** Lightness at which a hue counts as it is, and what is added so that blacks do not count for more. */
const FULL = 70;
const DARKEST = 12;
/** Least difference of hue between a mark and its ground, CIELAB units. */
const HUED = 5;
/** Pieces of a mark are so near each other, as a share of the picture's shorter side. */
const NEAR = 0.03;
const SMALLEST = 6;
/** Samples across the window, at most; and how near the click a piece must be, samples. */
const FINE = 420;
const BESIDE = 2;
/** Half the side of the squares that colours are taken from, px: cloth and paper are grainy. */
const DIP = 1;

/** Samples of a window of a picture. */
interface Grid {
  readonly left: number;
  readonly top: number;
  readonly every: number;
  readonly width: number;
  readonly height: number;
}

/**
 * The printed or written mark at a place: all pieces of the colour found there that lie close together.
 * @returns its pixels in reading order; null when the colour goes on to the window's border, which no mark does
 */
export function markAt(picture: Raster, at: Point): { pixels: Int32Array; pieces: number } | null {
  const { width, height } = picture;
  const [x, y] = [Math.round(at[0]), Math.round(at[1])];
  if (x < 0 || y < 0 || x >= width || y >= height) return null;
  const reach = (LARGEST * Math.max(width, height)) / 2;
  const every = Math.max(1, Math.ceil((2 * reach) / FINE));
  const left = Math.max(0, Math.round(x - reach));
  const top = Math.max(0, Math.round(y - reach));
  const grid: Grid = {
    left,
    top,
    every,
    width: Math.ceil((Math.min(width, x + reach) - left) / every),
    height: Math.ceil((Math.min(height, y + reach) - top) / every),
  };
  const mask = hueMask(picture, grid, x, y);
  if (!mask) return null;
  const pieces = piecesOf(mask, grid.width).filter(({ pixels }) => pixels.length >= SMALLEST);
  const inner = pieces.filter(
    (p) => p.left > 0 && p.top > 0 && p.right < grid.width - 1 && p.bottom < grid.height - 1,
  );
  const [u, v] = [Math.floor((x - left) / every), Math.floor((y - top) / every)];
  const gap = Math.round((NEAR * Math.min(width, height)) / every);
  const group = gathered(inner, gap).find((members) =>
    members.some(({ pixels }) =>
      pixels.some(
        (p) => Math.hypot((p % grid.width) - u, Math.floor(p / grid.width) - v) <= BESIDE,
      ),
    ),
  );
  if (!group) return null;
  const found: number[] = [];
  for (const { pixels } of group)
    for (const p of pixels) {
      const px = left + (p % grid.width) * every;
      const py = top + Math.floor(p / grid.width) * every;
      for (let dy = 0; dy < every; dy++)
        for (let dx = 0; dx < every; dx++)
          if (px + dx < width && py + dy < height) found.push((py + dy) * width + px + dx);
    }
  return { pixels: Int32Array.from(found).sort(), pieces: group.length };
}

/**
 * Pixels whose hue leaves that of the ground towards the mark's. The ground's hue is told lightness by lightness, so that
 * folds and shade do not count.
 */
function hueMask(picture: Raster, grid: Grid, x: number, y: number): Uint8Array | null {
  const labs = Array.from({ length: grid.width * grid.height }, (_, i) =>
    meanLab(
      picture,
      grid.left + (i % grid.width) * grid.every,
      grid.top + Math.floor(i / grid.width) * grid.every,
    ),
  );
  const own = meanLab(picture, x, y);
  const middle = { a: medianOf(labs.map((l) => l.a)), b: medianOf(labs.map((l) => l.b)) };
  const [va, vb] = [own.a - middle.a, own.b - middle.b];
  const length = Math.hypot(va, vb);
  if (length < HUED) return null;
  const along = (lab: Lab): number => ((lab.a - middle.a) * va + (lab.b - middle.b) * vb) / length;
  const stepOf = ({ L }: Lab): number =>
    Math.max(0, Math.min(STEPS - 1, Math.floor((L / 100) * STEPS)));
  const steps = Array.from({ length: STEPS }, (): number[] => []);
  const usual = medianOf(labs.map(along));
  for (const lab of labs) steps[stepOf(lab)]!.push(along(lab));
  const ground = steps.map((list) => {
    const sorted = list.sort((p, q) => p - q);
    // Where a lightness is the mark's alone, the ground of all others is taken.
    return Math.min(usual, sorted[Math.floor(GROUND * sorted.length)] ?? usual);
  });
  const least = HALFWAY * (along(own) - ground[stepOf(own)]!);
  return least > 1
    ? Uint8Array.from(labs, (lab) => (along(lab) - ground[stepOf(lab)]! >= least ? 1 : 0))
    : null;
}

/** CIELAB of the mean of a small square, its hue held against its lightness. */
function meanLab({ width, height, channels, data }: Raster, x: number, y: number): Lab {
  const grey = colourChannels(channels) < 3;
  const sum = [0, 0, 0];
  let count = 0;
  for (let v = Math.max(0, y - DIP); v <= Math.min(height - 1, y + DIP); v++)
    for (let u = Math.max(0, x - DIP); u <= Math.min(width - 1, x + DIP); u++, count++) {
      const i = (v * width + u) * channels;
      for (let c = 0; c < 3; c++) sum[c]! += data[grey ? i : i + c]!;
    }
  const [r, g, b] = sum.map((s) => s / count / whiteOf(data)) as [number, number, number];
  const lab = labOfSrgb(r, g, b);
  // In shade a hue is as strong for its lightness, not as strong.
  const shade = FULL / (lab.L + DARKEST);
  return { L: lab.L, a: lab.a * shade, b: lab.b * shade };
}
