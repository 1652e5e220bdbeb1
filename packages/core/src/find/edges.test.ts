import { seededRandom } from '../random/random.js';
import { greyOf } from '../raster/grey.js';
import type { Channels, Depth, Raster } from '../raster/raster.js';
import { createRaster, whiteOf } from '../raster/raster.js';
import { maskWhere } from '../shape/mask-where.js';
import { edgesBeside } from './edges.js';
import type { Place } from './plain/edge.js';
import { edgePlainly, rimPlainly } from './plain/edge.js';
import { tensorPlainly } from './plain/tensor.js';

const [WIDTH, HEIGHT] = [170, 150];
const OUT = 4;

/** Blots, stripes and grain with a ragged hole in them. */
function scene(seed: number, depth: Depth = 'u8', channels: Channels = 3) {
  const random = seededRandom(seed);
  const [fx, fy] = [0.02 + random.unit() / 9, 0.02 + random.unit() / 9];
  const window = createRaster(WIDTH, HEIGHT, channels, depth);
  const white = whiteOf(window.data);
  for (let i = 0; i < window.data.length; i++) {
    const p = Math.floor(i / channels);
    const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
    const stripes = Math.sin(fx * x + fy * y) + Math.sin(0.05 * y - 0.004 * x * fy);
    const code =
      90 + 60 * (stripes > 0.3 ? 1 : 0) + (x + 0.1 * y > 90 ? 80 : 0) + 8 * random.unit();
    window.data[i] = (code * white) / 255;
  }
  const hole = maskWhere(WIDTH * HEIGHT, (p) => {
    const [x, y] = [(p % WIDTH) - 85, Math.floor(p / WIDTH) - 60];
    return Math.hypot(x, y) < 34 + 6 * Math.sin(5 * Math.atan2(y, x)) || (x > 60 && y > 70);
  });
  return { window, hole };
}

test.each([
  [1, 'u8', 3],
  [2, 'u8', 1],
  [3, 'u16', 4],
  [4, 'f32', 3],
] as [number, Depth, Channels][])(
  'edges beside a hole agree with their plain twin, scene %d: %s, %i channels',
  (seed, depth, channels) => {
    const { window, hole } = scene(seed, depth, channels);
    const ground = { grey: greyOf(window), hole, width: WIDTH };
    const places = rimPlainly(hole, WIDTH, HEIGHT)
      .map(([p, ox, oy]): Place => ({
        x: Math.round((p % WIDTH) + OUT * ox),
        y: Math.round(Math.floor(p / WIDTH) + OUT * oy),
        inwards: [-ox, -oy],
      }))
      .filter(({ x, y }) => x >= 9 && y >= 9 && x < WIDTH - 9 && y < HEIGHT - 9);
    const wanted = places
      .map((place) => edgePlainly(ground, place))
      .filter((edge) => edge !== null);
    const found = edgesBeside(window, hole, OUT);
    expect(found.map(({ from }) => from)).toEqual(wanted.map(({ from }) => from));
    expect(found.length).toBeGreaterThan(20);
    expect(found.some(({ straight }) => straight)).toBe(true);
    found.forEach((edge, k) => {
      const other = wanted[k]!;
      expect(edge.straight).toBe(other.straight);
      for (const [a, b] of [
        [edge.at[0], other.at[0]],
        [edge.at[1], other.at[1]],
        [edge.inward[0], other.inward[0]],
        [edge.inward[1], other.inward[1]],
        [edge.strength, other.strength],
        [edge.bend, other.bend],
      ] as const)
        expect(a).toBeCloseTo(b, 6);
    });
  },
);

test('of plain ground and of no hole there is none', () => {
  const { window, hole } = scene(1);
  const flat: Raster = { ...window, data: window.data.slice().fill(90) };
  expect(edgesBeside(flat, hole, OUT)).toEqual([]);
  expect(edgesBeside(window, new Uint8Array(hole.length), OUT)).toEqual([]);
});

test('a ramp has the tensor of its slope', () => {
  const grey = new Float32Array(WIDTH * HEIGHT).map(
    (_, p) => 3 * (p % WIDTH) - 2 * Math.floor(p / WIDTH),
  );
  const ground = { grey, hole: new Uint8Array(grey.length), width: WIDTH };
  // 81 pixels of slopes 3 and -2.
  expect(tensorPlainly(ground, 20 * WIDTH + 20, 5)).toEqual([81 * 9, 81 * 4, 81 * -6]);
});
