import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { adviseFor, RULES, strokeWidthFor } from '../trade/advice.js';
import { growRegion } from './region.js';
import { siteFacts } from './site-facts.js';
import { coverageOf } from '../shape/coverage.js';

const W = 120;
const H = 100;

/** Ground of one tone and grain, a strong edge at x = `edge`, and a dark spot of `spot` px in the middle. */
function ground(edge: number, spot: number, grain = 2): Raster {
  const random = seededRandom(12);
  const r = createRaster(W, H, 3);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const n = random.between(-grain, grain);
      const inside = Math.hypot(x - 60, y - 50) <= spot / 2;
      for (let c = 0; c < 3; c++)
        r.data[(y * W + x) * 3 + c] = (inside ? 60 : x < edge ? 180 : 90) + n;
    }
  return r;
}

function disc(radius: number): Uint8Array {
  const mask = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) if (Math.hypot(x - 60, y - 50) <= radius) mask[y * W + x] = 1;
  return mask;
}

describe('facts of a site', () => {
  test('the defect’s width is measured inside the drawn site', () => {
    const facts = siteFacts(ground(999, 9), disc(12));
    expect(facts.defectWidth!).toBeGreaterThanOrEqual(8);
    expect(facts.defectWidth!).toBeLessThanOrEqual(10);
    expect(facts.edge).toBeNull();
  });

  test('the nearest strong edge is found, with its distance and contrast', () => {
    const facts = siteFacts(ground(82, 9), disc(10));
    // The site ends at x = 70, the edge lies between 81 and 82.
    expect(facts.edge!.distance).toBeGreaterThan(5);
    expect(facts.edge!.distance).toBeLessThan(13);
    expect(facts.edge!.contrast).toBeGreaterThan(25);
    expect(facts.crossed).toBe(false);
  });

  test('an edge through the site crosses it', () => {
    const facts = siteFacts(ground(60, 0), disc(8));
    expect(facts.crossed).toBe(true);
    expect(facts.edge!.distance).toBe(0);
  });

  test('texture is the grain’s standard deviation', () => {
    // Whole numbers -6..6 alike: deviation sqrt((13^2 - 1) / 12) = 3.74.
    expect(siteFacts(ground(999, 0, 6), disc(8)).texture).toBeGreaterThan(3);
    expect(siteFacts(ground(999, 0, 6), disc(8)).texture).toBeLessThan(4.5);
  });
});

describe('advice', () => {
  const facts = siteFacts(ground(999, 9), disc(12));

  // Common practice, no published source: width 1.1-1.3 times the defect's, at least 2 px over it.
  test.each([
    [4, 6],
    [10, 12],
    [30, 36],
  ])('a defect %d px wide wants a stroke of %d px', (defect, width) => {
    expect(strokeWidthFor(defect)).toBe(width);
  });

  // Each row quotes common practice; there is no published source.
  test.each([
    ['Small spot on even or finely textured ground: graft with an automatic donor.', {}, 'graft'],
    [
      'Spot within about its own width of a strong edge: clone along the edge.',
      { edge: { distance: 5, contrast: 38 } },
      'clone',
    ],
    [
      'An edge runs through the site: clone, donor shifted along the line, keeping step.',
      { edge: { distance: 0, contrast: 30 }, crossed: true },
      'clone',
    ],
    [
      'Long thin thing (wire, scratch, fold): a chain that follows it, then fill.',
      { slenderness: 20 },
      'fill',
    ],
    [
      'Big object: a fill in several portions rather than all at once.',
      { width: 200, area: 40000 },
      'fill',
    ],
  ] as const)('%s', (practice, more, method) => {
    const advice = adviseFor({ ...facts, ...more });
    expect(advice.method).toBe(method);
    expect(RULES.map((r) => r.practice)).toContain(practice);
    expect(advice.reason.length).toBeGreaterThan(20);
  });

  test('the reason names the edge', () => {
    expect(adviseFor({ ...facts, edge: { distance: 5, contrast: 38.2 } }).reason).toBe(
      'Edge 5 px away, contrast 38: clone along the edge',
    );
  });

  test('a big object is cut into portions', () => {
    expect(adviseFor({ ...facts, width: 320, area: 4 * 160 * 160 }).portions).toBe(4);
  });
});

describe('outlining a thing from a scribble', () => {
  test('settles on its edge', () => {
    const r = ground(999, 40);
    const outline = growRegion(r, [
      [55, 50],
      [65, 52],
    ])!;
    const frame = { x: 0, y: 0, width: W, height: H };
    const brush = { width: 1, softness: 0, flow: 1 };
    const { rect, values } = coverageOf({ kind: 'outline', points: outline }, brush, frame);
    let wrong = 0;
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        const px = x - rect.x;
        const py = y - rect.y;
        const covered =
          px >= 0 &&
          py >= 0 &&
          px < rect.width &&
          py < rect.height &&
          values[py * rect.width + px]! > 0.5;
        if (covered !== Math.hypot(x - 60, y - 50) <= 20) wrong++;
      }
    // A disc of 1257 px: the outline is right to within a pixel here and there.
    expect(wrong).toBeLessThan(40);
  });

  test('says null when the scribble is outside', () => {
    expect(growRegion(ground(999, 10), [[-5, 3]])).toBeNull();
  });
});
