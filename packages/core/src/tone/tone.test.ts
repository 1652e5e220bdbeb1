import { labOfSrgb } from '../colour/lab.js';
import { createRaster } from '../raster/raster.js';
import { crop } from '../raster/rect.js';
import { seededRandom } from '../random/random.js';
import { fadeLevels, levelsFor } from './auto-levels.js';
import { autoTone } from './auto-tone.js';
import { tonedColour } from './colour-acts.js';
import { curveThrough } from './curve.js';
import { squaredRadius } from './falloff.js';
import { clippedBy, histogramOf, quantileOf } from './histogram.js';
import { levelled, NO_LEVELS } from './levels.js';
import { floats } from './floats.js';
import { toned } from './render.js';
import { overshootOf } from './sharpen.js';
import { reachOf, throughTones } from './stack.js';
import type { ToneAct } from './step.js';
import { actsOf, plainStep } from './steps-of.js';

const noisy = (width: number, height: number, depth: 'u8' | 'u16' = 'u8') => {
  const picture = createRaster(width, height, 3, depth);
  const random = seededRandom(2);
  const white = depth === 'u8' ? 255 : 65535;
  for (let p = 0; p < picture.data.length; p++) picture.data[p] = random.between(0, white);
  return picture;
};

describe('levels', () => {
  test('a histogram worked by hand: 1 of 8 samples may clip at either end', () => {
    // Eight samples in eight ranges: 0, 2, 2, 3, 4, 5, 5, 7 eighths.
    const h = histogramOf([0.01, 0.26, 0.27, 0.4, 0.51, 0.63, 0.64, 0.9], 8);
    expect([...h.counts]).toEqual([1, 0, 2, 1, 1, 2, 0, 1]);
    expect(quantileOf(h, 1 / 8)).toBeCloseTo(1 / 8);
    expect(quantileOf(h, 7 / 8)).toBeCloseTo(6 / 8);
    expect(levelsFor(h, 1 / 8)).toEqual({ black: 1 / 8, white: 6 / 8, gamma: 1 });
    expect(clippedBy(h, 1 / 8, 6 / 8)).toEqual({ black: 1 / 8, white: 1 / 8 });
  });

  test('black goes to 0, white to 1, and the middle where gamma puts it', () => {
    const levels = { black: 0.2, white: 0.7, gamma: 2 };
    expect(levelled(0.2, levels)).toBe(0);
    expect(levelled(0.7, levels)).toBe(1);
    expect(levelled(0.325, levels)).toBeCloseTo(0.5);
    expect(levelled(0.9, levels)).toBe(1);
  });

  test('a channel that faded is opened more than one that did not', () => {
    const values = (low: number, high: number) =>
      histogramOf(
        Array.from({ length: 1001 }, (_, k) => low + ((high - low) * k) / 1000),
        1024,
      );
    const [red, , blue] = fadeLevels([values(0.05, 0.95), values(0.1, 0.9), values(0.3, 0.8)]);
    expect(red!.white - red!.black).toBeGreaterThan(blue!.white - blue!.black);
    expect(levelled(0.3, blue!)).toBeLessThan(0.1);
    expect(levelled(0.8, blue!)).toBeGreaterThan(0.88);
  });

  test('a picture of one tone is left alone', () => {
    expect(fadeLevels([histogramOf([0.5, 0.5], 1024)])).toEqual([NO_LEVELS]);
  });
});

test('light that falls off is measured and made even', () => {
  const [width, height] = [240, 180];
  const picture = createRaster(width, height, 3);
  const random = seededRandom(7);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const patch = 60 + 37 * ((Math.floor(x / 24) * 3 + Math.floor(y / 24) * 5) % 5);
      const light = 1 - 0.34 * squaredRadius(x, y, width, height);
      for (let c = 0; c < 3; c++, i++) picture.data[i] = (patch + random.between(-3, 3)) * light;
    }
  const auto = autoTone(picture);
  expect(Math.abs(auto.falloff - 0.34)).toBeLessThan(0.05);
  const flat = toned(picture, [plainStep({ kind: 'flatten', falloff: auto.falloff })]);
  // The same patch tone in a corner and in the middle.
  const mean = (x0: number, y0: number): number => {
    const part = crop(flat, { x: x0, y: y0, width: 10, height: 10 });
    let sum = 0;
    for (const v of part.data) sum += v;
    return sum / part.data.length;
  };
  expect(Math.abs(mean(6, 6) - mean(126, 102))).toBeLessThan(12);
  expect(actsOf(auto).map((a) => a.kind)).toEqual(['flatten', 'levels']);
});

test('toning keeps to its hue line and to every lightness', () => {
  for (const hue of [75, 250])
    for (const L of [10, 35, 60, 90]) {
      const [r, g, b] = tonedColour(L, hue, 14);
      const lab = labOfSrgb(r, g, b);
      expect(Math.abs(lab.L - L)).toBeLessThan(0.05);
      const off = lab.a * Math.sin((hue * Math.PI) / 180) - lab.b * Math.cos((hue * Math.PI) / 180);
      expect(Math.abs(off)).toBeLessThan(0.1);
    }
  expect(tonedColour(0, 75, 30)).toEqual([0, 0, 0]);
});

test('an ideal edge overshoots by half the amount, whatever the radius', () => {
  // A Gaussian takes half of a step away at the step itself.
  expect(overshootOf(1, 1)).toBeCloseTo(0.5, 1);
  expect(overshootOf(4, 0.6)).toBeCloseTo(0.3, 1);
  expect(overshootOf(2, 0)).toBe(0);
});

test('a sharpened edge never passes its surroundings by more than the limit', () => {
  const picture = createRaster(60, 20, 1, 'u16');
  for (let p = 0; p < picture.data.length; p++) picture.data[p] = p % 60 < 30 ? 20000 : 40000;
  const sharp = toned(picture, [
    plainStep({ kind: 'sharpen', radius: 1.5, amount: 2, limit: 0.02 }),
  ]);
  const most = Math.max(...sharp.data) - 40000;
  expect(most).toBeGreaterThan(0.018 * 65535);
  expect(most).toBeLessThanOrEqual(Math.ceil(0.02 * 65535) + 1);
});

describe('curve', () => {
  test('goes through its points and never turns back between them', () => {
    const f = curveThrough([
      [0, 0.1],
      [0.3, 0.2],
      [0.35, 0.8],
      [1, 1],
    ]);
    expect(f(0.3)).toBeCloseTo(0.2);
    expect(f(0.35)).toBeCloseTo(0.8);
    for (let k = 1; k <= 200; k++)
      expect(f(k / 200)).toBeGreaterThanOrEqual(f((k - 1) / 200) - 1e-12);
  });
});

describe('stack', () => {
  const plain: ToneAct[] = [
    { kind: 'levels', all: NO_LEVELS, channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS] },
    { kind: 'light', exposure: 0, contrast: 0, warmth: 0, tint: 0 },
    {
      kind: 'curve',
      channel: 'all',
      points: [
        [0, 0],
        [1, 1],
      ],
    },
    { kind: 'saturation', amount: 0 },
    { kind: 'sharpen', radius: 1, amount: 0, limit: 0 },
    { kind: 'flatten', falloff: 0 },
    { kind: 'balance', shadows: [0, 0, 0], middle: [0, 0, 0], highlights: [0, 0, 0] },
  ];
  test.each(['u8', 'u16'] as const)(
    'steps at their plain settings give the same bytes, %s',
    (depth) => {
      const picture = noisy(40, 30, depth);
      for (const act of plain) expect(toned(picture, [plainStep(act)]).data).toEqual(picture.data);
    },
  );

  test('steps that are off or of no strength are not there at all', () => {
    const picture = noisy(8, 8);
    const step = plainStep<ToneAct>({ kind: 'saturation', amount: -1 });
    expect(
      toned(picture, [
        { ...step, enabled: false },
        { ...step, strength: 0 },
      ]),
    ).toBe(picture);
  });

  test('strips come out as the whole does', () => {
    const picture = noisy(24, 700);
    const steps = [
      plainStep<ToneAct>({ kind: 'sharpen', radius: 2, amount: 1, limit: 0.1 }),
      plainStep<ToneAct>({ kind: 'denoise', radius: 3, noise: 0.1 }),
      {
        ...plainStep<ToneAct>({ kind: 'light', exposure: 1, contrast: 0, warmth: 0, tint: 0 }),
        mask: {
          kind: 'gradient' as const,
          inverted: false,
          from: [0, 0] as const,
          to: [0, 699] as const,
        },
      },
    ];
    expect(reachOf(steps)).toBeGreaterThanOrEqual(13);
    const place = { width: 24, height: 700, x: 0, y: 0, scale: 1 };
    const whole = throughTones(floats(picture), steps, place);
    const strips = toned(picture, steps);
    strips.data.forEach((v, i) =>
      expect(Math.abs(v - whole.data[i]! * 255)).toBeLessThanOrEqual(0.51),
    );
  });

  test('a mask keeps a step out of where it is nothing', () => {
    const picture = noisy(60, 60);
    const mask = {
      kind: 'outline' as const,
      inverted: false,
      points: [
        [20, 20],
        [40, 20],
        [40, 40],
        [20, 40],
      ] as const,
      feather: 0,
    };
    const done = toned(picture, [
      { ...plainStep<ToneAct>({ kind: 'saturation', amount: -1 }), mask },
    ]);
    const at = (x: number, y: number) => [
      ...done.data.subarray((y * 60 + x) * 3, (y * 60 + x) * 3 + 3),
    ];
    expect(at(5, 5)).toEqual([...picture.data.subarray((5 * 60 + 5) * 3, (5 * 60 + 5) * 3 + 3)]);
    const [r, g, b] = at(30, 30);
    expect([g, b]).toEqual([r, r]);
  });

  test('grain is the same wherever the picture is cut', () => {
    const picture = createRaster(40, 40, 1, 'f32');
    picture.data.fill(0.5);
    const step = [plainStep<ToneAct>({ kind: 'grain', deviation: 0.05, size: 0.5, seed: 4 })];
    const whole = throughTones(picture, step, { width: 40, height: 40, x: 0, y: 0, scale: 1 });
    const part = throughTones(crop(picture, { x: 10, y: 12, width: 8, height: 8 }), step, {
      width: 40,
      height: 40,
      x: 10,
      y: 12,
      scale: 1,
    });
    expect(part.data[0]).toBeCloseTo(whole.data[12 * 40 + 10]!, 6);
    expect(part.data[63]).toBeCloseTo(whole.data[19 * 40 + 17]!, 6);
  });
});
