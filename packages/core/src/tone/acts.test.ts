import { labOfSrgb } from '../colour/lab.js';
import { toEncoded, toLinear } from '../colour/srgb.js';
import { seededRandom } from '../random/random.js';
import type { Channels, Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { channelFunctions, colours } from './channel-acts.js';
import { squaredRadius } from './falloff.js';
import { NO_LEVELS } from './levels.js';
import { throughTones } from './stack.js';
import type { ToneAct, ToneActOf } from './step.js';
import { plainStep } from './steps-of.js';

/** Floats 0..1, told by place. */
function picture(
  width: number,
  height: number,
  channels: Channels,
  at: (x: number, y: number, c: number) => number,
): Raster {
  const out = createRaster(width, height, channels, 'f32');
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < channels; c++, i++) out.data[i] = at(x, y, c);
  return out;
}

/** The picture after one act, seen whole and in full size. */
function after(region: Raster, act: ToneAct): Float32Array {
  const place = { width: region.width, height: region.height, x: 0, y: 0, scale: 1 };
  return throughTones(region, [plainStep(act)], place).data as Float32Array;
}

const one = (rgb: readonly [number, number, number], act: ToneAct): number[] =>
  Array.from(
    after(
      picture(1, 1, 3, (_x, _y, c) => rgb[c]!),
      act,
    ),
  );

const mean = (values: ArrayLike<number>): number =>
  Array.from(values).reduce((a, b) => a + b, 0) / values.length;

const deviation = (values: ArrayLike<number>): number => {
  const m = mean(values);
  return Math.sqrt(mean(Array.from(values, (v) => (v - m) ** 2)));
};

describe('colour', () => {
  test('without saturation what is left is the luma of ITU-R BT.709', () => {
    expect(one([1, 0, 0], { kind: 'saturation', amount: -1 })[0]).toBeCloseTo(0.2126, 5);
    const [r, g, b] = one([0.3, 0.6, 0.1], { kind: 'saturation', amount: -1 });
    expect(r).toBeCloseTo(0.2126 * 0.3 + 0.7152 * 0.6 + 0.0722 * 0.1, 5);
    expect([g, b]).toEqual([r, r]);
  });

  test('saturation moves a colour along its line through grey, never out of range', () => {
    const [r, g, b] = one([0.5, 0.4, 0.45], { kind: 'saturation', amount: 0.5 });
    expect((r! - g!) / (b! - g!)).toBeCloseTo(0.1 / 0.05, 4);
    expect(r! - g!).toBeCloseTo(0.15, 5);
    for (const v of one([1, 0, 0.5], { kind: 'saturation', amount: 1 })) {
      expect(v).toBeGreaterThanOrEqual(0);
      expect(v).toBeLessThanOrEqual(1);
    }
  });

  test('grey is mixed from shares of the channels, which need not add up to one', () => {
    const grey = one([0.2, 0.4, 0.8], { kind: 'grey', weights: [0.5, 0.25, 0.5] });
    for (const v of grey) expect(v).toBeCloseTo(0.1 + 0.1 + 0.4, 5);
    for (const v of one([0.9, 0.9, 0.9], { kind: 'grey', weights: [1, 1, 1] })) expect(v).toBe(1);
  });

  test.each([0.05, 0.3, 0.6, 0.95])('a grey of %s keeps its lightness when it is toned', (v) => {
    const act: ToneAct = { kind: 'toning', hue: 65, chroma: 18 };
    const [r, g, b] = one([v, v, v], act);
    const was = labOfSrgb(v, v, v);
    const { L, a: A, b: B } = labOfSrgb(r!, g!, b!);
    expect(L).toBeCloseTo(was.L, 0);
    expect((Math.atan2(B, A) * 180) / Math.PI).toBeCloseTo(65, 0);
  });

  test('toning leaves black and white alone', () => {
    const act: ToneAct = { kind: 'toning', hue: 250, chroma: 40 };
    for (const v of [0, 1]) for (const w of one([v, v, v], act)) expect(w).toBeCloseTo(v, 3);
  });
});

describe('light', () => {
  const plain: ToneActOf<'light'> = { kind: 'light', exposure: 0, contrast: 0, warmth: 0, tint: 0 };

  test('a stop more is twice the light', () => {
    for (const v of [0.1, 0.3, 0.5]) {
      const [lit] = one([v, v, v], { ...plain, exposure: 1 });
      expect(toLinear(lit!)).toBeCloseTo(2 * toLinear(v), 4);
    }
  });

  test('contrast turns about mid-grey and keeps black and white', () => {
    const [f] = channelFunctions({ ...plain, contrast: 0.5 })!;
    const grey = toEncoded(0.18);
    expect(f(0)).toBe(0);
    expect(f(1)).toBe(1);
    expect(f(grey)).toBeCloseTo(grey, 10);
    expect(f(grey / 2)).toBeLessThan(grey / 2);
    expect(f((1 + grey) / 2)).toBeGreaterThan((1 + grey) / 2);
  });

  test('contrast less is the inverse of as much more', () => {
    const [more] = channelFunctions({ ...plain, contrast: 0.7 })!;
    const [less] = channelFunctions({ ...plain, contrast: -0.7 })!;
    for (let v = 0.05; v < 1; v += 0.1) expect(less(more(v))).toBeCloseTo(v, 8);
  });

  test('warmth lifts red by as many stops as it lowers blue', () => {
    const [r, , b] = one([0.4, 0.4, 0.4], { ...plain, warmth: 0.5 });
    const light = toLinear(0.4);
    expect(Math.log2(toLinear(r!) / light)).toBeCloseTo(0.25, 2);
    expect(Math.log2(toLinear(b!) / light)).toBeCloseTo(-0.25, 2);
  });

  test('tint keeps the product of the gains', () => {
    const rgb = one([0.4, 0.4, 0.4], { ...plain, tint: 0.6 });
    const stops = rgb.map((v) => Math.log2(toLinear(v) / toLinear(0.4)));
    expect(stops[0]! + stops[1]! + stops[2]!).toBeCloseTo(0, 2);
    expect(stops[1]).toBeGreaterThan(0);
  });

  test('light that fell off towards the corners by a share is given back by it', () => {
    const [w, h] = [60, 40];
    const dim = picture(w, h, 1, (x, y) => 0.6 * (1 - 0.4 * squaredRadius(x, y, w, h)));
    for (const v of after(dim, { kind: 'flatten', falloff: 0.4 })) expect(v).toBeCloseTo(0.6, 5);
  });

  test('strokes lighten by stops where they run, and nothing elsewhere', () => {
    const ground = picture(60, 40, 1, () => 0.3);
    const act: ToneAct = {
      kind: 'strokes',
      strokes: [
        {
          points: [
            [10, 20],
            [50, 20],
          ],
          width: 10,
        },
      ],
      stops: 1,
      softness: 0,
      between: [0, 1],
    };
    const lit = after(ground, act);
    expect(toLinear(lit[20 * 60 + 30]!)).toBeCloseTo(2 * toLinear(0.3), 4);
    expect(lit[5 * 60 + 30]).toBeCloseTo(0.3, 6);
  });

  test('strokes leave tones beyond their limits', () => {
    const ground = picture(60, 40, 1, (x) => (x < 30 ? 0.15 : 0.7));
    const act: ToneAct = {
      kind: 'strokes',
      strokes: [
        {
          points: [
            [0, 20],
            [60, 20],
          ],
          width: 20,
        },
      ],
      stops: -1,
      softness: 0,
      between: [0.5, 1],
    };
    const burnt = after(ground, act);
    expect(burnt[20 * 60 + 10]).toBeCloseTo(0.15, 6);
    expect(toLinear(burnt[20 * 60 + 50]!)).toBeCloseTo(toLinear(0.7) / 2, 4);
  });
});

describe('one value at a time', () => {
  const none = [NO_LEVELS, NO_LEVELS, NO_LEVELS] as const;

  test('balance leaves black and white where they are, and moves one channel in its range only', () => {
    const zero = [0, 0, 0] as const;
    const act: ToneAct = { kind: 'balance', shadows: [0.4, 0, 0], middle: zero, highlights: zero };
    const [red, green] = channelFunctions(act)!;
    expect(red(0)).toBe(0);
    expect(red(1)).toBe(1);
    expect(red(0.3) - 0.3).toBeGreaterThan(2 * (red(0.8) - 0.8));
    for (const v of [0.1, 0.5, 0.9]) expect(green(v)).toBe(v);
  });

  test('levels of all channels come before those of each', () => {
    const half = { black: 0, white: 0.5, gamma: 1 };
    const red = { black: 0.5, white: 1, gamma: 1 };
    const act: ToneAct = {
      kind: 'levels',
      all: half,
      channels: [red, NO_LEVELS, NO_LEVELS],
    };
    const [r, g] = channelFunctions(act)!;
    // 0.4 becomes 0.8, which lies three fifths of the way from 0.5 to 1.
    expect(r(0.4)).toBeCloseTo(0.6, 10);
    expect(g(0.4)).toBeCloseTo(0.8, 10);
  });

  test('a curve of one channel leaves the others', () => {
    const act: ToneAct = {
      kind: 'curve',
      channel: 'green',
      points: [
        [0, 0.1],
        [1, 0.9],
      ],
    };
    const [r, g, b] = channelFunctions(act)!;
    expect([r(0.5), b(0.25)]).toEqual([0.5, 0.25]);
    expect(g(0)).toBeCloseTo(0.1, 10);
    expect(g(1)).toBeCloseTo(0.9, 10);
  });

  test.each<[string, ToneAct, boolean]>([
    ['levels alike', { kind: 'levels', all: NO_LEVELS, channels: none }, false],
    [
      'levels of one channel',
      {
        kind: 'levels',
        all: NO_LEVELS,
        channels: [{ ...NO_LEVELS, gamma: 1.2 }, NO_LEVELS, NO_LEVELS],
      },
      true,
    ],
    ['exposure', { kind: 'light', exposure: 1, contrast: 0.2, warmth: 0, tint: 0 }, false],
    ['tint', { kind: 'light', exposure: 0, contrast: 0, warmth: 0, tint: 0.1 }, true],
    ['toning without chroma', { kind: 'toning', hue: 60, chroma: 0 }, false],
    ['toning', { kind: 'toning', hue: 60, chroma: 8 }, true],
    ['saturation', { kind: 'saturation', amount: 1 }, false],
  ])('%s: whether a grey picture needs colour for it', (_, act, needed) => {
    expect(colours(act)).toBe(needed);
  });
});

describe('noise and grain', () => {
  const random = seededRandom(7);
  const noisyEdge = picture(80, 60, 1, (x) => (x < 40 ? 0.3 : 0.7) + 0.04 * (random.unit() - 0.5));

  test('a guided filter takes the noise out and keeps the edge where it is', () => {
    const out = after(noisyEdge, { kind: 'denoise', radius: 4, noise: 0.03 });
    const flat = (values: Float32Array, from: number, to: number): number[] =>
      Array.from({ length: 60 }, (_, y) => [...values.subarray(y * 80 + from, y * 80 + to)]).flat();
    const before = deviation(flat(noisyEdge.data as Float32Array, 8, 32));
    expect(deviation(flat(out, 8, 32))).toBeLessThan(before / 3);
    expect(mean(flat(out, 34, 38))).toBeCloseTo(0.3, 1);
    expect(mean(flat(out, 42, 46)) - mean(flat(out, 34, 38))).toBeGreaterThan(0.37);
  });

  test('no noise, or a radius that a reduced view cannot show, changes nothing', () => {
    expect(after(noisyEdge, { kind: 'denoise', radius: 4, noise: 0 })).toEqual(noisyEdge.data);
    const place = { width: 800, height: 600, x: 0, y: 0, scale: 10 };
    const small = throughTones(
      noisyEdge,
      [plainStep({ kind: 'denoise', radius: 4, noise: 0.03 })],
      place,
    );
    expect(small.data).toEqual(noisyEdge.data);
  });

  test('one deviating pixel takes the middle of its surroundings, one that deviates less stays', () => {
    const specked = picture(9, 9, 1, (x, y) =>
      x === 4 && y === 4 ? 0.9 : x === 6 && y === 2 ? 0.55 : 0.5,
    );
    const out = after(specked, { kind: 'despeckle', radius: 1, threshold: 0.1 });
    expect(out[4 * 9 + 4]).toBeCloseTo(0.5, 6);
    expect(out[2 * 9 + 6]).toBeCloseTo(0.55, 6);
  });

  test.each([1, 2, 4])(
    'grain of size %s has the deviation that was asked for in mid-tones',
    (size) => {
      const flat = picture(200, 200, 1, () => 0.5);
      const out = after(flat, { kind: 'grain', deviation: 0.03, size, seed: 4 });
      expect(deviation(out) / 0.03).toBeGreaterThan(0.85);
      expect(deviation(out) / 0.03).toBeLessThan(1.15);
      expect(mean(out)).toBeCloseTo(0.5, 2);
    },
  );

  test('grain is coarser the larger its size, alike in all channels, and another by another seed', () => {
    const flat = picture(120, 120, 3, () => 0.5);
    const grains = (size: number, seed = 4): Float32Array =>
      after(flat, { kind: 'grain', deviation: 0.03, size, seed });
    const likeness = (values: Float32Array): number => {
      const luma = Array.from({ length: 120 * 120 }, (_, p) => values[3 * p]! - 0.5);
      const product = mean(luma.slice(1).map((v, p) => v * luma[p]!));
      return product / mean(luma.map((v) => v * v));
    };
    expect(Math.abs(likeness(grains(0.5)))).toBeLessThan(0.05);
    expect(likeness(grains(4))).toBeGreaterThan(0.7);
    const out = grains(2);
    expect(out[3]).toBe(out[4]);
    expect(grains(2)).toEqual(out);
    expect(grains(2, 5)).not.toEqual(out);
  });

  test('grain is weak in deep shadows', () => {
    const out = (v: number): number =>
      deviation(
        after(
          picture(100, 100, 1, () => v),
          { kind: 'grain', deviation: 0.02, size: 1, seed: 1 },
        ),
      );
    expect(out(0.5)).toBeGreaterThan(1.5 * out(0.1));
  });
});

describe('focus', () => {
  const checks = picture(120, 90, 1, (x, y) => (((x >> 1) + (y >> 1)) % 2 ? 0.8 : 0.2));
  const act: ToneActOf<'focus'> = {
    kind: 'focus',
    shape: 'round',
    at: [60, 45],
    turn: 0,
    sharp: 15,
    fade: 10,
    radius: 12,
  };

  test('stays sharp within its place, to the value', () => {
    const out = after(checks, act);
    for (let y = 36; y < 54; y++)
      for (let x = 50; x < 70; x++)
        expect(out[y * 120 + x]).toBeCloseTo(checks.data[y * 120 + x]!, 3);
  });

  test('beyond it light is spread, not lost: mixed in linear light as a lens does', () => {
    const out = after(checks, act);
    const corner = Array.from({ length: 12 }, (_, y) => [
      ...out.subarray((y + 4) * 120 + 4, (y + 4) * 120 + 16),
    ]).flat();
    expect(deviation(corner)).toBeLessThan(0.02);
    const light = (toLinear(0.8) + toLinear(0.2)) / 2;
    expect(toLinear(mean(corner))).toBeCloseTo(light, 2);
  });

  test('a band is sharp along its length whichever way it is turned', () => {
    const contrast = (values: Float32Array, x: number, y: number): number =>
      Math.abs(values[y * 120 + x]! - values[y * 120 + x + 2]!);
    const level = after(checks, { ...act, shape: 'band' });
    expect(contrast(level, 4, 45)).toBeGreaterThan(0.5);
    expect(contrast(level, 60, 4)).toBeLessThan(0.1);
    const upright = after(checks, { ...act, shape: 'band', turn: 90 });
    expect(contrast(upright, 60, 4)).toBeGreaterThan(0.5);
    expect(contrast(upright, 4, 45)).toBeLessThan(0.1);
  });

  test('a radius too small to show changes nothing', () => {
    expect(after(checks, { ...act, radius: 0.4 })).toEqual(checks.data);
  });
});
