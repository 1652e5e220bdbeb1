import { toEncoded, toLinear } from '../colour/srgb.js';
import { seededRandom } from '../random/random.js';
import type { Channels, Depth, Raster } from '../raster/raster.js';
import { createRaster, whiteOf } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import type { PointMap } from '../raster/resample.js';
import { resampleBy } from '../raster/resample.js';
import { alone } from '../task/crew.js';
import { composed } from './compose.js';
import type { Evening } from './evening.js';
import { evenedPlanes } from './evening.js';
import { NOBODY } from './seams.js';
import { squaredFrom } from './light.js';

const [WIDTH, HEIGHT] = [150, 70];
const PLAIN: Evening = { gains: [1, 1, 1], falloff: [0, 0] };
const HERE: PointMap = (x, y, to) => to.set([x, y]);

function noise(seed: number, channels: Channels = 3, depth: Depth = 'u8'): Raster {
  const random = seededRandom(seed);
  const picture = createRaster(WIDTH, HEIGHT, channels, depth);
  const most = Math.round(whiteOf(picture.data) * 0.9);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = depth === 'f32' ? random.between(0, 900) / 1000 : random.between(0, most);
  return picture;
}

/** Frames that all lie on the whole canvas, each the owner of a share of its columns. */
function put(
  frames: readonly Raster[],
  to: PointMap = HERE,
  evening = PLAIN,
  { channels = 3, depth = 'u8' }: { channels?: Channels; depth?: Depth } = {},
) {
  const labels = Uint8Array.from({ length: WIDTH * HEIGHT }, (_, p) =>
    Math.floor(((p % WIDTH) / WIDTH) * frames.length),
  );
  return composed(
    frames,
    frames.map(() => evening),
    { labels, width: WIDTH, step: 1 },
    {
      projection: 'plane',
      width: WIDTH,
      height: HEIGHT,
      toFrame: frames.map(() => to),
      boxes: frames.map(() => frameOf({ width: WIDTH, height: HEIGHT })),
    },
    channels,
    depth,
    alone,
  );
}

/** The most that two pictures differ by, as a share of white, away from the border. */
function apart(one: Raster, other: Raster, margin = 0): number {
  const n = one.channels;
  let most = 0;
  for (let y = margin; y < HEIGHT - margin; y++)
    for (let x = margin; x < WIDTH - margin; x++)
      for (let c = 0; c < n; c++) {
        const i = (y * WIDTH + x) * n + c;
        most = Math.max(most, Math.abs(one.data[i]! - other.data[i]!));
      }
  return most / whiteOf(one.data);
}

test.each([
  [3, 'u8', 1 / 255],
  [1, 'u8', 1 / 255],
  [3, 'u16', 0.001],
  [3, 'f32', 0.001],
] as const)(
  'three shares of one picture of %i channels, %s, are that picture again',
  (n, depth, most) => {
    const picture = noise(5, n, depth);
    const { picture: joined, covered } = put([picture, picture, picture], HERE, PLAIN, {
      channels: n,
      depth,
    });
    expect(apart(joined, picture)).toBeLessThanOrEqual(most);
    expect(covered.every((c) => c === 1)).toBe(true);
  },
);

test('a step between two frames is spread over many pixels, and their own tone kept far from it', () => {
  const flat = (code: number): Raster => {
    const picture = createRaster(WIDTH, HEIGHT, 3);
    picture.data.fill(code);
    return picture;
  };
  const { data } = put([flat(60), flat(180)]).picture;
  const row = Array.from({ length: WIDTH }, (_, x) => data[(35 * WIDTH + x) * 3]!);
  for (let x = 1; x < WIDTH; x++) expect(row[x]! - row[x - 1]!).toBeLessThan(0.12 * 120);
  expect(row[0]).toBeLessThan(70);
  expect(row[WIDTH - 1]).toBeGreaterThan(170);
});

test('a frame is laid to a fraction of a pixel as the cubic kernel gives it', () => {
  const picture = noise(8);
  const shifted: PointMap = (x, y, to) => to.set([0.98 * x + 1.3, y + 0.02 * x - 0.6]);
  const plain = resampleBy(
    picture,
    frameOf(picture),
    shifted,
    1,
    frameOf(picture),
    frameOf(picture),
  );
  expect(apart(put([picture], shifted).picture, plain.raster, 6)).toBeLessThan(0.012);
});

test('no frame reaches where the map leads outside: it is black there', () => {
  const { picture, covered } = put([noise(2)], (x, y, to) => to.set([x - 40, y]));
  for (let p = 0; p < covered.length; p++) {
    const inside = p % WIDTH >= 40;
    expect(covered[p]).toBe(inside ? 1 : 0);
    if (!inside) expect([...picture.data.subarray(3 * p, 3 * p + 3)]).toEqual([0, 0, 0]);
  }
  expect(NOBODY).toBe(255);
});

test('exposure and falloff are taken off in linear light, in the picture and in its planes', () => {
  const evening: Evening = { gains: [1.2, 1, 0.8], falloff: [-0.3, 0.05] };
  const picture = createRaster(WIDTH, HEIGHT, 3);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = 40 + ((i * 7) % 120);
  const { data } = put([picture], HERE, evening).picture;
  const planes = evenedPlanes(
    [0, 1, 2].map((c) => ({
      width: WIDTH,
      height: HEIGHT,
      values: Float32Array.from({ length: WIDTH * HEIGHT }, (_, p) => picture.data[3 * p + c]!),
    })),
    picture,
    evening,
  );
  for (let p = 0; p < WIDTH * HEIGHT; p += 13)
    for (let c = 0; c < 3; c++) {
      const r = squaredFrom(picture, p % WIDTH, Math.floor(p / WIDTH));
      const light = toLinear(picture.data[3 * p + c]! / 255) * evening.gains[c]!;
      const lifted = 255 * toEncoded(light / Math.exp(-0.3 * r + 0.05 * r * r));
      expect(Math.abs(data[3 * p + c]! - lifted)).toBeLessThan(1);
      expect(Math.abs(planes[c]!.values[p]! - lifted)).toBeLessThan(0.5);
    }
});
