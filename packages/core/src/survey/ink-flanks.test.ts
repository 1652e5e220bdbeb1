import { inkFlanks } from './ink-flanks.js';
import { offFrom } from './ink-letters.js';
import type { Stroke } from './ink-stroke.js';

const [WIDTH, HEIGHT] = [120, 90];

/** A layer of three colours: what a function gives, on a ground of 200, 190, 170. */
function layerOf(at: (x: number, y: number) => readonly number[] | null) {
  const plane = (c: number) => ({
    width: WIDTH,
    height: HEIGHT,
    values: Float32Array.from(
      { length: WIDTH * HEIGHT },
      (_, p) => (at(p % WIDTH, Math.floor(p / WIDTH)) ?? [200, 190, 170])[c]!,
    ),
  });
  return { grey: plane(0), colours: [0, 1, 2].map(plane) };
}

const INK = [30, 40, 110];
const waveAt = (x: number): number => 20 + 6 * Math.sin(x / 9);
const onWave = (x: number, y: number): boolean => Math.abs(y - waveAt(x)) < 2;
const xs = Float32Array.from({ length: 80 }, (_, i) => 10 + i);
/** The stroke that runs along the wave. */
const STROKE = {
  xs,
  ys: xs.map(waveAt),
  widths: xs.map(() => 4),
} as unknown as Stroke;

const flanksOf = (at: (x: number, y: number) => readonly number[] | null) =>
  inkFlanks(layerOf(at), [STROKE], offFrom(layerOf(at), INK, 1), 18);

describe('how strokes lie', () => {
  test('alone, all of their colour is thin, and their edges are crisp', () => {
    const { thin, crisp } = flanksOf((x, y) => (onWave(x, y) ? INK : null));
    expect(thin).toBe(1);
    expect(crisp).toBe(1);
  });

  test('beside a broad ground of their colour little is thin; one far away takes nothing', () => {
    const near = flanksOf((x, y) => (onWave(x, y) || (y > 30 && y < 60) ? INK : null));
    expect(near.thin).toBeGreaterThan(0.3);
    expect(near.thin).toBeLessThan(0.7);
    expect(flanksOf((x, y) => (onWave(x, y) || y > 60 ? INK : null)).thin).toBe(1);
  });

  test('on a ground that is nearly like them their edges are no clear step', () => {
    const { crisp } = flanksOf((x, y) => (onWave(x, y) ? INK : [52, 62, 132]));
    expect(crisp).toBe(0);
  });

  test('a colour that nothing beside them has is none', () => {
    expect(flanksOf(() => null)).toEqual({ thin: 0, crisp: 0 });
  });
});
