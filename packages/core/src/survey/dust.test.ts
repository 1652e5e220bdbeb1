import { blemishOf, dustAmong, speckOf } from './dust.js';
import type { Speck } from './specks.js';

const frame = { width: 1000, height: 400 };

/** A bright speck of six pixels, the k-th of a row of them. */
function speck(k: number, odds: number): Speck {
  const start = 1000 * (10 * Math.floor(k / 20) + 5) + 50 * (k % 20);
  const site = Int32Array.from({ length: 6 }, (_, i) => start + i);
  return { site, odds, polarity: 1, level: 0, traits: { tone: 230, foreign: 0 } } as Speck;
}

const crumbs = Array.from({ length: 30 }, (_, k) => speckOf(speck(k, 4)));
const doubtful = speckOf(speck(70, 0.5));
const oddsAmong = (isElsewhere: (k: number) => boolean): number =>
  dustAmong([...crumbs, doubtful], frame, (c) => isElsewhere(crumbs.indexOf(c))).find(
    ({ pixels }) => pixels[0] === doubtful.pixels[0],
  )!.odds;

describe('dust of a picture as a whole', () => {
  test('where specks lie about, a doubtful one is one as well; crumbs of a crease say nothing', () => {
    const creased = oddsAmong((k) => k >= 0);
    expect(oddsAmong(() => false)).toBeGreaterThan(creased + 1.5);
  });

  test('what lies elsewhere is told by that', () => {
    const kept = dustAmong([...crumbs, doubtful], frame, (c) => c === doubtful);
    expect(kept).toHaveLength(30);
  });

  test('a blemish that a speck tells already is none; in a dusty picture it needs more', () => {
    const at = (pixel: number): Int32Array => Int32Array.of(pixel, pixel + 1);
    const blemish = (pixels: Int32Array) => blemishOf({ pixels, odds: 2, polarity: -1 }, 0, frame);
    const [told, apart] = [blemish(at(5 * 1000 + 2)), blemish(at(300 * 1000 + 500))];
    const none = (): boolean => false;
    const among = dustAmong([...crumbs, told, apart], frame, none).filter((c) => c.tinted);
    expect(among.map(({ odds }) => odds)).toEqual([-1]);
    const alone = dustAmong([told, apart], frame, none);
    expect(alone.map(({ odds }) => odds)).toEqual([2, 2]);
  });
});
