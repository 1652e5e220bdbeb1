import { seededRandom } from '../random/random.js';
import { blurred } from '../raster/plane.js';
import { createRaster } from '../raster/raster.js';
import { NO_SIDES } from './canvas.js';
import { sidesFilled } from './filled.js';
import { stretched } from './stretch.js';
import { judgeWidened } from './trial.js';

const [width, height] = [160, 150];

/** A wall with grain and a round thing in its middle. */
function scene() {
  const random = seededRandom(8);
  const rough = Float32Array.from({ length: width * height }, () => random.between(-60, 60));
  const texture = blurred({ width, height, values: rough }, 1.2).values;
  const picture = createRaster(width, height, 3);
  const subject = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const inside = Math.hypot(x - 80, y - 80) < 26;
      if (Math.hypot(x - 80, y - 80) < 30) subject[p] = 1;
      const v = (inside ? 60 : 150) + texture[p]!;
      picture.data.set([v, v, v], 3 * p);
    }
  return { picture, subject };
}

test('both ways of widening a plain wall keep the picture, and are told apart by figures', () => {
  const { picture, subject } = scene();
  const sides = { ...NO_SIDES, left: 24, right: 16 };
  const trials = [
    judgeWidened('fill', sidesFilled(picture, sides, subject), sides),
    judgeWidened('stretch', stretched(picture, sides, subject).picture, sides),
  ];
  for (const { picture: wide, texture, tells, score } of trials) {
    expect([wide.width, wide.height]).toEqual([200, 150]);
    expect(texture).toBeGreaterThan(0.75);
    expect(texture).toBeLessThan(1.3);
    const sum = tells.reduce((s, t) => s + Math.abs(Math.log(t.value / t.limit)), 0);
    expect(score).toBeCloseTo(sum + Math.abs(Math.log(texture)), 9);
    // The thing stands where it should, untouched.
    expect(wide.data[3 * (80 * 200 + 104)]).toBe(picture.data[3 * (80 * 160 + 80)]);
  }
});

test('sides that are smooth where the wall is rough score worse, and the texture says why', () => {
  const { picture, subject } = scene();
  const sides = { ...NO_SIDES, left: 24, right: 16 };
  const filled = sidesFilled(picture, sides, subject);
  const smooth = { ...filled, data: filled.data.slice() };
  for (let y = 0; y < 150; y++)
    for (const [from, to] of [
      [0, 24],
      [184, 200],
    ] as const)
      smooth.data.fill(150, 3 * (y * 200 + from), 3 * (y * 200 + to));
  const [good, bad] = [filled, smooth].map((p) => judgeWidened('fill', p, sides));
  expect(bad!.texture).toBeLessThan(0.2);
  expect(bad!.score).toBeGreaterThan(good!.score + 1);
});
