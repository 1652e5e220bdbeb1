import type { Plane } from '../raster/plane.js';
import { seededRandom } from '../random/random.js';
import { spotsAt } from './spots.js';

const [WIDTH, HEIGHT] = [120, 90];

/** Grey with grain, and discs of other tones: middle, radius, tone. */
function planeWith(
  discs: readonly (readonly [number, number, number, number])[],
  grain = 2,
): Plane {
  const random = seededRandom(7);
  const values = new Float32Array(WIDTH * HEIGHT);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const on = discs.find(([cx, cy, r]) => Math.hypot(x - cx, y - cy) <= r);
      values[p] = (on ? on[3] : 120) + random.between(-grain, grain);
    }
  return { width: WIDTH, height: HEIGHT, values };
}

const at = (p: number): [number, number] => [p % WIDTH, Math.floor(p / WIDTH)];

describe('spots', () => {
  test('bright and dark ones are found with their pixels, and nothing in grain alone', () => {
    const spots = spotsAt(
      planeWith([
        [30, 20, 1.5, 200],
        [80, 60, 2.2, 40],
      ]),
      0,
    );
    expect(spots).toHaveLength(2);
    for (const [polarity, cx, cy, r] of [
      [1, 30, 20, 1.5],
      [-1, 80, 60, 2.2],
    ]) {
      const { pixels } = spots.find((spot) => spot.polarity === polarity)!;
      const disc = Array.from({ length: WIDTH * HEIGHT }, (_, p) => p).filter(
        (p) => Math.hypot(at(p)[0] - cx!, at(p)[1] - cy!) <= r!,
      );
      expect([...pixels]).toEqual(disc);
    }
    expect(spotsAt(planeWith([]), 0)).toEqual([]);
  });

  test('lines and edges are none', () => {
    const plane = planeWith([]);
    for (let x = 0; x < WIDTH; x++) plane.values[45 * WIDTH + x] = 220;
    for (let y = 0; y < 40; y++) plane.values.fill(30, y * WIDTH, y * WIDTH + 50);
    expect(spotsAt(plane, 0)).toEqual([]);
  });

  test('at the border fewer places round a spot must do, in a corner three', () => {
    const spots = spotsAt(
      planeWith([
        [0, 45, 1.5, 210],
        [119, 89, 1.5, 20],
      ]),
      0,
    );
    expect(spots.map(({ polarity }) => polarity)).toEqual([1, -1]);
  });

  test('of a plateau of one height the first pixel is the summit, told once', () => {
    const spots = spotsAt(planeWith([[60, 40, 2, 200]], 0), 0);
    expect(spots).toHaveLength(1);
    expect(at(spots[0]!.summit)).toEqual([60, 38]);
    expect(spots[0]!.stands).toBe(80);
  });

  test('broader ones belong to the wider ring; what the small ring finds is not looked for at coarser levels', () => {
    const broad = planeWith([[60, 40, 4, 200]]);
    const [found] = spotsAt(broad, 0);
    expect(found!.pixels.length).toBeGreaterThan(45);
    expect(spotsAt(planeWith([[60, 40, 4, 200]]), 2)).toHaveLength(1);
  });
});
