import { seededRandom } from '../random/random.js';
import { tensorPlainly } from './plain/tensor.js';
import { tensorsAt } from './tensors.js';

const [WIDTH, HEIGHT] = [47, 39];

test('tensors agree with their plain twin, to the last bit, beside a hole and away from it', () => {
  const random = seededRandom(4);
  const grey = Float32Array.from({ length: WIDTH * HEIGHT }, () => 255 * random.unit());
  const hole = Uint8Array.from(grey, (_, p) => (p % WIDTH > 25 && random.unit() < 0.3 ? 1 : 0));
  const ground = { grey, hole, width: WIDTH };
  const pixels = Array.from({ length: 80 }, () => {
    const [x, y] = [random.between(6, WIDTH - 7), random.between(6, HEIGHT - 7)];
    return y * WIDTH + x;
  });
  for (const half of [3, 5]) {
    const wanted = pixels.flatMap((p) => tensorPlainly(ground, p, half));
    expect(Array.from(tensorsAt(ground, pixels, half))).toEqual(wanted);
  }
  expect(tensorsAt(ground, [], 5)).toHaveLength(0);
});

test('a ramp has the tensor of its slope', () => {
  const grey = Float32Array.from(
    { length: WIDTH * HEIGHT },
    (_, p) => 3 * (p % WIDTH) - 2 * Math.floor(p / WIDTH),
  );
  const ground = { grey, hole: new Uint8Array(grey.length), width: WIDTH };
  // 81 pixels of slopes 3 and -2.
  expect(Array.from(tensorsAt(ground, [20 * WIDTH + 20], 5))).toEqual([81 * 9, 81 * 4, 81 * -6]);
});
