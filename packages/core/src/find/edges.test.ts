import { seededRandom } from '../random/random.js';
import { maskWhere } from '../shape/mask-where.js';
import type { Ground, Place } from './edges.js';
import { edgesBeside } from './edges.js';
import { edgePlainly, rimPlainly } from './plain/edge.js';
import { tensorPlainly } from './plain/tensor.js';

const [WIDTH, HEIGHT] = [170, 150];
const OUT = 4;

/** Blots, stripes and grain with a ragged hole in them. */
function scene(seed: number): Ground {
  const random = seededRandom(seed);
  const [fx, fy] = [0.02 + random.unit() / 9, 0.02 + random.unit() / 9];
  const grey = new Float32Array(WIDTH * HEIGHT).map((_, p) => {
    const [x, y] = [p % WIDTH, Math.floor(p / WIDTH)];
    const stripes = Math.sin(fx * x + fy * y) + Math.sin(0.05 * y - 0.004 * x * fy);
    return 90 + 60 * (stripes > 0.3 ? 1 : 0) + (x + 0.1 * y > 90 ? 80 : 0) + 8 * random.unit();
  });
  const hole = maskWhere(grey.length, (p) => {
    const [x, y] = [(p % WIDTH) - 85, Math.floor(p / WIDTH) - 60];
    return Math.hypot(x, y) < 34 + 6 * Math.sin(5 * Math.atan2(y, x)) || (x > 60 && y > 70);
  });
  return { grey, hole, width: WIDTH };
}

test.each([1, 2, 3, 4])('edges beside a hole agree with their plain twin, scene %d', (seed) => {
  const ground = scene(seed);
  const places = rimPlainly(ground.hole, WIDTH, HEIGHT)
    .map(([p, ox, oy]): Place => ({
      x: Math.round((p % WIDTH) + OUT * ox),
      y: Math.round(Math.floor(p / WIDTH) + OUT * oy),
      inwards: [-ox, -oy],
    }))
    .filter(({ x, y }) => x >= 9 && y >= 9 && x < WIDTH - 9 && y < HEIGHT - 9);
  const wanted = places.map((place) => edgePlainly(ground, place)).filter((edge) => edge !== null);
  const found = edgesBeside(ground, OUT);
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
});

test('of plain ground and of no hole there is none', () => {
  const flat = { ...scene(1), grey: new Float32Array(WIDTH * HEIGHT).fill(90) };
  expect(edgesBeside(flat, OUT)).toEqual([]);
  expect(edgesBeside({ ...scene(1), hole: new Uint8Array(WIDTH * HEIGHT) }, OUT)).toEqual([]);
});

test('a ramp has the tensor of its slope', () => {
  const grey = new Float32Array(WIDTH * HEIGHT).map(
    (_, p) => 3 * (p % WIDTH) - 2 * Math.floor(p / WIDTH),
  );
  const ground = { grey, hole: new Uint8Array(grey.length), width: WIDTH };
  // 81 pixels of slopes 3 and -2.
  expect(tensorPlainly(ground, 20 * WIDTH + 20, 5)).toEqual([81 * 9, 81 * 4, 81 * -6]);
});
