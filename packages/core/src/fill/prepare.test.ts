import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { alone } from '../task/crew.js';
import { OUTSIDE } from './atlas.js';
import { fieldOf } from './field.js';
import { HALF } from './level.js';
import { mannerFor } from './manner.js';
import { addTexturePlainly, halvePlainly, surveyPlainly } from './plain/prepare.js';
import { pyramidOf, sourceStep } from './pyramid.js';
import { DEEPEST, halfToThe } from './work.js';

/** Sizes that are no multiples of what a kernel takes at once, and smaller than that. */
const SIZES = [
  [7, 7],
  [9, 31],
  [17, 12],
  [23, 40],
  [64, 48],
  [101, 97],
  // Rows enough to be cut into ranges.
  [211, 163],
] as const;

/** Noise with ragged holes and bans, and a part that lies beyond the picture. */
function madeUp(width: number, height: number) {
  const random = seededRandom(width + 7 * height);
  const raster = createRaster(width, height, 3);
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, 255);
  const hole = new Uint8Array(width * height);
  const banned = new Uint8Array(width * height);
  for (const mask of [hole, hole, banned]) {
    const [x0, y0] = [random.between(0, width - 1), random.between(0, height - 1)];
    for (let y = y0; y < Math.min(height, y0 + 9); y++)
      for (let x = x0; x < Math.min(width, x0 + 7); x++)
        if (random.unit() < 0.8) mask[y * width + x] = 1;
  }
  hole[random.between(0, hole.length - 1)] = 1;
  banned.fill(OUTSIDE, (height - 2) * width);
  return { raster, hole, banned };
}

describe.each(SIZES)('a window of %i by %i px', (width, height) => {
  const scene = madeUp(width, height);
  const manner = { ...mannerFor(20), coarsestDepth: 3 };

  test('is laid down with its texture, and halved, as by the plain twins', () => {
    const { levels } = pyramidOf(scene, 6, manner, alone);
    const finest = { ...levels[0]!, pixels: new Int16Array(4 * width * height) };
    for (let p = 0; p < scene.hole.length; p++)
      for (let c = 0; c < 3; c++)
        finest.pixels[4 * p + c] = scene.hole[p] ? 0 : 4 * scene.raster.data[3 * p + c]!;
    addTexturePlainly(finest, manner.texture);
    if (levels[1]) {
      const { width, height } = levels[1];
      const n = width * height;
      const small = {
        width,
        height,
        pixels: new Int16Array(4 * n),
        hole: new Uint8Array(n),
        banned: new Uint8Array(n),
      };
      halvePlainly(finest, small);
      expect(levels[1].pixels).toEqual(small.pixels);
      expect(levels[1].hole).toEqual(small.hole);
      expect(levels[1].banned).toEqual(small.banned);
    }
    for (let i = 3; i < finest.pixels.length; i += 4) finest.pixels[i] = finest.pixels[i]! >> 1;
    expect(levels[0]!.pixels).toEqual(finest.pixels);
  });

  test('is sorted into sources, targets and holes as by the plain twin', () => {
    const made = pyramidOf(scene, 3, manner, alone);
    const { source, target, sources, holes, number } = fieldOf(made, 0);
    const plain = surveyPlainly(made.levels[0]!);
    expect(Array.from(target)).toEqual(plain.target);
    expect(Array.from(sources)).toEqual(plain.source);
    expect(Array.from(source.keys()).filter((p) => source[p])).toEqual(plain.source);
    expect(Array.from(holes)).toEqual([...scene.hole.keys()].filter((p) => scene.hole[p]));
    plain.target.forEach((p, k) => expect(number[p]).toBe(k));
    expect(number.filter((k) => k >= 0)).toHaveLength(plain.target.length);
  });

  test('trust in a target halves with every pixel into the hole', () => {
    const made = pyramidOf(scene, 3, manner, alone);
    const { target, trust } = fieldOf(made, 0);
    const depth = depthsInThirds(scene.hole, width, height);
    const wanted = Array.from(target, (p) =>
      Math.fround(halfToThe((Math.min(DEEPEST, depth[p]!) * manner.distrust) / 3)),
    );
    expect(Array.from(trust)).toEqual(wanted);
    expect(target.every((p) => p % width >= HALF)).toBe(true);
  });
});

test('very many sources are thinned evenly, whichever rows they are listed in', () => {
  const [width, height] = [530, 420];
  const made = pyramidOf(madeUp(width, height), 3, { ...mannerFor(20), coarsestDepth: 3 }, alone);
  const { source, sources } = fieldOf(made, 0);
  const all = [...source.keys()].filter((p) => source[p]);
  const step = sourceStep(all.length);
  expect(step).toBe(3);
  expect(Array.from(sources)).toEqual(all.filter((_, k) => k % step === 0));
});

/** Chamfer distance into a mask in thirds of a pixel (weights 3 and 4), relaxed until nothing changes. */
function depthsInThirds(hole: Uint8Array, width: number, height: number): number[] {
  const depth = Array.from(hole, (open): number => (open ? 60_000 : 0));
  for (let changed = true; changed;) {
    changed = false;
    for (let p = 0; p < depth.length; p++)
      for (let v = -1; v <= 1; v++)
        for (let u = -1; u <= 1; u++) {
          const x = (p % width) + u;
          const y = Math.floor(p / width) + v;
          if (x < 0 || y < 0 || x >= width || y >= height) continue;
          const d = depth[y * width + x]! + (u && v ? 4 : 3);
          if (d >= depth[p]!) continue;
          depth[p] = d;
          changed = true;
        }
  }
  return depth;
}
