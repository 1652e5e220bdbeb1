import { toEncoded, toLinear } from '../colour/srgb.js';
import type { Plane } from '../raster/plane.js';
import { lightOf, squaredFrom } from './light.js';
import { surfaceOf } from './surface.js';

const SIZE = { width: 400, height: 300 };
const SHIFT = 180;
/** Three frames of a flat wall, each shifted to the right. */
const SURFACE = surfaceOf(
  { kind: 'flat', maps: [0, 1, 2].map((k) => [1, 0, SHIFT * k, 0, 1, 0, 0, 0, 1]) },
  [SIZE, SIZE, SIZE],
  'plane',
);

/** Light of the wall at a place, linear. */
const wall = (x: number, y: number): number =>
  0.28 + 0.1 * Math.sin(x / 37) + 0.06 * Math.cos(y / 23 + x / 90);

/** The frames as a camera with exposures and a falloff takes them; some of a frame's places show something else. */
function frames(
  gains: readonly number[],
  falloff: number,
  wrong: (frame: number, x: number, y: number) => boolean = () => false,
): Plane[][] {
  return gains.map((gain, frame) => {
    const values = Float32Array.from({ length: SIZE.width * SIZE.height }, (_, p) => {
      const [x, y] = [p % SIZE.width, Math.floor(p / SIZE.width)];
      if (wrong(frame, x, y)) return 60;
      const light = wall(x + SHIFT * frame, y) * gain;
      return 255 * toEncoded(light * Math.exp(falloff * squaredFrom(SIZE, x, y)));
    });
    return [{ ...SIZE, values }];
  });
}

const lights = (planes: readonly Plane[][]) => lightOf(planes, [SIZE, SIZE, SIZE], SURFACE);
const ratio = ({ gains }: ReturnType<typeof lights>, k: number): number =>
  gains[0]![0]! / gains[k]![0]!;

describe('light of frames', () => {
  test('squared distances are 1 in the corners and 0 in the middle', () => {
    expect(squaredFrom({ width: 401, height: 301 }, 200, 150)).toBe(0);
    expect(squaredFrom({ width: 4001, height: 3001 }, 0, 0)).toBeCloseTo(1, 2);
  });

  test('exposures are told from what frames show of the same places', () => {
    const told = lights(frames([1, 1.3, 0.8], 0));
    expect(ratio(told, 1)).toBeCloseTo(1.3, 2);
    expect(ratio(told, 2)).toBeCloseTo(0.8, 2);
    expect(Math.abs(told.falloff[0] + told.falloff[1])).toBeLessThan(0.02);
  });

  test('a lens that darkens its corners is told apart from exposures', () => {
    const told = lights(frames([1, 1.2, 0.9], -0.5));
    expect(ratio(told, 1)).toBeCloseTo(1.2, 1);
    expect(ratio(told, 2)).toBeCloseTo(0.9, 1);
    for (const r of [0.2, 0.5, 0.8])
      expect(Math.abs(told.falloff[0] * r + told.falloff[1] * r * r + 0.5 * r)).toBeLessThan(0.04);
  });

  test('somebody who walked through one of the frames changes nothing', () => {
    const walked = frames([1, 1.3, 0.8], 0, (k, x) => k === 1 && x > 40 && x < 110);
    expect(ratio(lights(walked), 1)).toBeCloseTo(1.3, 2);
  });

  test('what is blown out says nothing of the light', () => {
    const bright = frames([1, 1.3, 0.8], 0);
    for (const v of bright[1]![0]!.values.subarray(0, 20_000).keys())
      bright[1]![0]!.values[v] = 255;
    expect(ratio(lights(bright), 1)).toBeCloseTo(1.3, 2);
  });

  test('encoding and its way back are each other’s inverse in this range', () => {
    for (const v of [0.02, 0.2, 0.7]) expect(toLinear(toEncoded(v))).toBeCloseTo(v, 6);
  });
});
