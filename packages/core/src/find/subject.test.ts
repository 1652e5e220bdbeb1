import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { subjectAs, subjectOf } from './subject.js';

const [width, height] = [240, 200];

/** A wall that gets darker downward over a floor, and on it, when wanted, a pot on a board that nearly spans it. */
function scene(thing: boolean) {
  const random = seededRandom(4);
  const picture = createRaster(width, height, 3);
  const truth = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const pot = thing && Math.hypot(x - 120, (y - 90) / 1.4) < 34;
      const board = thing && y >= 136 && y < 152 && x >= 14 && x < 226;
      const ground = y < 176 ? [150 - y / 4, 140 - y / 4, 120 - y / 4] : [90, 60, 36];
      const tone = pot ? [40, 80, 120] : board ? [190, 130, 70] : ground;
      if (pot || board) truth[p] = 1;
      for (let c = 0; c < 3; c++) picture.data[3 * p + c] = tone[c]! + random.between(-6, 6);
    }
  return { picture, truth };
}

test('what stands before the background is found whole, and little of the background', () => {
  const { picture, truth } = scene(true);
  const found = subjectOf(picture)!;
  let [kept, missed, extra] = [0, 0, 0];
  truth.forEach((t, p) => {
    if (t && found[p]) kept++;
    else if (t) missed++;
    else if (found[p]) extra++;
  });
  expect(missed / (kept + missed)).toBeLessThan(0.03);
  expect(extra / (width * height)).toBeLessThan(0.12);
  // A strip of background stays free at both sides.
  for (let y = 0; y < height; y++) expect(found[y * width] || found[y * width + width - 1]).toBe(0);
});

test('a thing whose tip comes up to the border takes the last strip there, and only there', () => {
  const { picture } = scene(true);
  for (let y = 140; y < 150; y++)
    for (let x = 226; x < width - 2; x++) picture.data.set([190, 130, 70], 3 * (y * width + x));
  const found = subjectOf(picture)!;
  for (let y = 0; y < height; y++) {
    expect(found[y * width]).toBe(0);
    if (y >= 140 && y < 150) expect(found[y * width + width - 4]).toBe(1);
    // What is found is told by cells of 4 px.
    else if (y < 132 || y >= 158) expect(found[y * width + width - 4]).toBe(0);
  }
});

test('a bare background has no subject', () => {
  expect(subjectOf(scene(false).picture)).toBeNull();
});

test('an outline that a person drew is taken as it is, also where nothing stands out', () => {
  const { picture } = scene(false);
  const marked = subjectAs(picture, [
    [40, 50],
    [80, 50],
    [80, 90],
    [40, 90],
  ])!;
  expect(marked[70 * width + 60]).toBe(1);
  expect(marked[70 * width + 120]).toBe(0);
  expect(marked.reduce((a, b) => a + b, 0)).toBeCloseTo(41 * 41, -2);
  expect(subjectAs(picture, null)).toBeNull();
});
