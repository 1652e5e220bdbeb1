import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { greyChoice } from './channels.js';

/** A print with a step of `contrast` codes and normal noise, a channel. */
function print(contrast: readonly number[], noise: readonly number[]) {
  const picture = createRaster(200, 160, 3);
  const random = seededRandom(3);
  const normal = (): number => {
    let sum = 0;
    for (let k = 0; k < 12; k++) sum += random.between(0, 9999) / 10000;
    return sum - 6;
  };
  for (let p = 0; p < 200 * 160; p++)
    for (let c = 0; c < 3; c++) {
      const light = Math.floor((p % 200) / 50) / 3;
      picture.data[3 * p + c] = Math.round(
        110 + contrast[c]! * (light - 0.5) + noise[c]! * normal(),
      );
    }
  return picture;
}

test('contrast and noise of every channel are what was put in', () => {
  const { ways } = greyChoice(print([120, 60, 30], [2, 3, 6]))!;
  const [red, green, blue] = ways;
  // The range between the outer hundredths is the step and about 2.3 deviations to either side at most.
  expect(Math.abs(red!.contrast - 124)).toBeLessThan(6);
  expect(Math.abs(red!.noise - 2)).toBeLessThan(0.25);
  expect(Math.abs(green!.noise - 3)).toBeLessThan(0.3);
  expect(Math.abs(blue!.noise - 6)).toBeLessThan(0.6);
});

test('a print that is clear in one channel alone goes on from it or mostly from it', () => {
  const choice = greyChoice(print([120, 40, 12], [2, 5, 8]))!;
  expect(['red', 'mix']).toContain(choice.best);
  expect(choice.ways.find((w) => w.way === 'mix')!.weights[0]).toBeGreaterThan(0.85);
  expect(choice.reason).toMatch(/more contrast/);
});

test('equal channels give no reason to leave the plain grey; grey pictures have no channels', () => {
  expect(greyChoice(print([90, 90, 90], [3, 3, 3]))!.ways).toHaveLength(5);
  expect(greyChoice(createRaster(40, 40, 1))).toBeNull();
});
