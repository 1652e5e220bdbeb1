import { layerAt } from '../raster/layers.js';
import { seededRandom } from '../random/random.js';
import { lossesOf } from './losses.js';
import { agreement, Scene } from './test-scenes.js';

const [WIDTH, HEIGHT] = [480, 420];
const LID = [60, 66, 70];

/** A print with its left upper corner gone, jagged, with a white fringe, and a hole of some radius; 0 for none. */
function torn(hole = 0): Scene {
  const scene = new Scene(WIDTH, HEIGHT, 3);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const over = 150 - x - 0.8 * y + 5 * Math.sin(x / 9) + 4 * Math.sin(y / 6);
      if (over > 0) scene.lay(x, y, over < 3 ? [236, 232, 222] : LID);
    }
  if (hole) scene.disc(320, 260, hole, LID);
  return scene;
}

/** Adds what a scanner does: a normal deviation by twelve even ones. */
function withNoise(scene: Scene, deviation: number): Scene {
  const random = seededRandom(17);
  const { data } = scene.picture;
  for (let i = 0; i < data.length; i++) {
    let sum = 0;
    for (let k = 0; k < 12; k++) sum += random.between(-500, 500) / 1000;
    data[i] = Math.max(0, Math.min(255, Math.round(data[i]! + deviation * sum)));
  }
  return scene;
}

function foundIn({ picture }: Scene): Uint8Array {
  const found = new Uint8Array(WIDTH * HEIGHT);
  for (const { pixels, odds } of lossesOf(layerAt(picture, 0)))
    if (odds > 0) for (const p of pixels) found[p] = 1;
  return found;
}

test.each([0, 3, 7])('a corner that is gone is found under noise of %d levels', (deviation) => {
  const scene = withNoise(torn(), deviation);
  expect(agreement(foundIn(scene), scene.damage, WIDTH).f1).toBeGreaterThan(0.98);
});

test.each([0, 5])(
  'a hole of the colour that shows at the torn corner is found under noise of %d',
  (deviation) => {
    const scene = withNoise(torn(40), deviation);
    expect(agreement(foundIn(scene), scene.damage, WIDTH).f1).toBeGreaterThan(0.97);
  },
);

test('a shadow out of range at the border is no loss', () => {
  const scene = new Scene(WIDTH, HEIGHT, 6);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      if (x < 110 + 9 * Math.sin(y / 15) && Math.abs(y - 210) < 90 + 6 * Math.sin(x / 8))
        scene.lay(x, y, [0, 0, 0]);
  expect(foundIn(scene).includes(1)).toBe(false);
});

test.each([0, 5])('noise of %d does not make a loss of what is none', (deviation) => {
  const untouched = withNoise(new Scene(WIDTH, HEIGHT, 4), deviation);
  expect(foundIn(untouched).includes(1)).toBe(false);
});

test.each([0, 5])('a backdrop that a thing cuts in two is no loss, noise of %d', (deviation) => {
  const scene = new Scene(WIDTH, HEIGHT, 5);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      if (Math.abs(x - 250 - 0.2 * y) > 90) scene.lay(x, y, [236, 226, 208]);
  expect(foundIn(withNoise(scene, deviation)).includes(1)).toBe(false);
});

test.each([0, 6])(
  'an even ground of another colour is the picture’s own beside a torn corner and a hole; noise of %d',
  (deviation) => {
    const scene = torn(40);
    const wall = (x: number, y: number): boolean => y > HEIGHT - 60 + 5 * Math.sin(x / 17);
    for (let y = HEIGHT - 70; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++)
        if (wall(x, y)) scene.picture.data.set([150, 158, 170], 3 * (y * WIDTH + x));
    const found = foundIn(withNoise(scene, deviation));
    expect(agreement(found, scene.damage, WIDTH).f1).toBeGreaterThan(0.95);
    expect(found[260 * WIDTH + 320]).toBe(1);
    expect(found[(HEIGHT - 20) * WIDTH + 200]).toBe(0);
  },
);
