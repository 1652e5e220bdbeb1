import { fitted, panned, toPicture, toScreen, ZOOM_LIMITS, zoomedAt } from './viewport.js';

const table = { width: 800, height: 600 };
const picture = { width: 3000, height: 2000 };

describe('viewport', () => {
  test.each([0, 5, -30, 90, 173])(
    'screen and picture points belong together, turned by %d degrees',
    (turn) => {
      const view = { x: 700, y: 300, zoom: 1.7, turn };
      const [x, y] = toPicture(view, table, toScreen(view, table, [812.5, 123.25]));
      expect(x).toBeCloseTo(812.5, 9);
      expect(y).toBeCloseTo(123.25, 9);
    },
  );

  test('a positive turn is counter-clockwise on screen', () => {
    const view = { x: 0, y: 0, zoom: 1, turn: 90 };
    const [sx, sy] = toScreen(view, table, [100, 0]);
    expect(sx).toBeCloseTo(400, 9);
    expect(sy).toBeCloseTo(200, 9);
  });

  test('zooming keeps the point under the pointer', () => {
    const view = { x: 700, y: 300, zoom: 0.4, turn: 12 };
    const before = toPicture(view, table, [120, 470]);
    const after = toPicture(zoomedAt(view, table, [120, 470], 3), table, [120, 470]);
    expect(after[0]).toBeCloseTo(before[0], 9);
    expect(after[1]).toBeCloseTo(before[1], 9);
    expect(zoomedAt(view, table, [0, 0], 1e9).zoom).toBe(ZOOM_LIMITS.most);
  });

  test('panning moves the picture by the way of the pointer', () => {
    const view = { x: 700, y: 300, zoom: 0.4, turn: 40 };
    const [x, y] = toScreen(view, table, [650, 280]);
    const [mx, my] = toScreen(panned(view, 33, -21), table, [650, 280]);
    expect([mx - x, my - y]).toEqual([expect.closeTo(33, 9), expect.closeTo(-21, 9)]);
  });

  test('fitting shows all corners, turned or not', () => {
    for (const turn of [0, 25, 90]) {
      const view = fitted(picture, table, turn);
      for (const corner of [
        [0, 0],
        [2999, 0],
        [2999, 1999],
        [0, 1999],
      ] as const) {
        const [x, y] = toScreen(view, table, corner);
        expect(x).toBeGreaterThan(0);
        expect(x).toBeLessThan(800);
        expect(y).toBeGreaterThan(0);
        expect(y).toBeLessThan(600);
      }
    }
  });
});
