import { weightedMedianOf } from '../raster/median.js';
import { blurred } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { smoothedOf } from './bands.js';
import { grainStep } from './grain-tell.js';
import { middleOf, placesIn } from './middle.js';
import { siteWindow } from './site-window.js';
import { toneStep } from './tone-tell.js';

const [width, height] = [200, 180];

/** Ground with so much texture, soft as photographed, and grain. */
function ground(texture: number, grain: number): Raster {
  const picture = createRaster(width, height, 3);
  const random = seededRandom(8);
  const rough = Float32Array.from({ length: width * height }, () => random.between(-100, 100));
  const soft = blurred({ width, height, values: rough }, 2).values;
  for (let p = 0; p < width * height; p++) {
    const tone = 120 + texture * soft[p]! + random.between(-grain, grain);
    picture.data.fill(Math.max(0, Math.min(255, tone)), 3 * p, 3 * p + 3);
  }
  return picture;
}

const disc = (r: number): Int32Array =>
  Int32Array.from({ length: width * height }, (_, p) => p).filter(
    (p) => Math.hypot((p % width) - 100, Math.floor(p / width) - 90) <= r,
  );

function altered(picture: Raster, site: Int32Array, by: (p: number) => number): Raster {
  const data = picture.data.slice();
  for (const p of site) data.fill(Math.round(by(p)), 3 * p, 3 * p + 3);
  return { ...picture, data };
}

function windowOf(picture: Raster, site: Int32Array) {
  const changed = new Uint8Array(width * height);
  for (const p of site) changed[p] = 1;
  return siteWindow(picture, site, changed);
}

describe('the weighted median', () => {
  test('is that of a list in which every value stands as often as it weighs', () => {
    expect(weightedMedianOf([5, 1, 9], [1, 3, 1])).toBe(1);
    expect(weightedMedianOf([5, 1, 9], [1, 1, 1])).toBe(5);
    expect(weightedMedianOf([5, 1, 9], [0, 0, 2])).toBe(9);
    expect(weightedMedianOf([], [])).toBe(0);
  });

  test('of places that are all alike is as doubtful as the least spread over the root of their number', () => {
    const middle = middleOf([2, 2, 2, 2, 2, 2, 2, 2], new Array(8).fill(1), 2, 0.4);
    expect(middle.value).toBe(2);
    expect(middle.doubt).toBeCloseTo((1.25 * 0.4) / Math.sqrt(4), 9);
  });

  test('counts no more places than there are inside the site', () => {
    const few = placesIn(Uint8Array.from({ length: 30 }, (_, p) => (p < 18 ? 1 : 0)));
    expect(few).toBe(2);
    const values = [1, 2, 3, 4, 5, 6];
    const weights = new Array<number>(6).fill(1);
    expect(middleOf(values, weights, 1, 0.1, few).doubt).toBeGreaterThan(
      middleOf(values, weights, 1, 0.1).doubt,
    );
  });
});

describe('a step of tone', () => {
  test('is told on lively ground by its size, and not where there is none', () => {
    const picture = ground(1.5, 6);
    const site = disc(26);
    expect(toneStep(windowOf(picture, site))).toBe(0);
    // 11 codes of grey at this tone are about 4 CIEDE2000.
    const step = toneStep(
      windowOf(
        altered(picture, site, (p) => picture.data[3 * p]! + 11),
        site,
      ),
    );
    expect(step).toBeGreaterThan(3);
    expect(step).toBeLessThan(5);
  });

  test('is not told of a spot that is no more than the texture it stands in', () => {
    const picture = ground(3, 2);
    const spot = disc(5);
    expect(toneStep(windowOf(picture, spot))).toBe(0);
    const clear = toneStep(
      windowOf(
        altered(picture, spot, () => 250),
        spot,
      ),
    );
    expect(clear).toBeGreaterThan(10);
  });
});

describe('a step of grain', () => {
  const grainy = ground(0.4, 10);
  const smooth = ground(0.4, 0);
  const told = (picture: Raster, site: Int32Array): number => {
    const window = windowOf(picture, site);
    return grainStep(window, smoothedOf(window.luma));
  };

  test('is 1 in untouched ground, however grainy', () => {
    expect(told(grainy, disc(24))).toBe(1);
    expect(told(smooth, disc(24))).toBe(1);
  });

  test('tells a site without the grain round it, one with half of it, and one with grain of its own', () => {
    const site = disc(24);
    expect(
      told(
        altered(grainy, site, (p) => smooth.data[3 * p]!),
        site,
      ),
    ).toBeLessThan(0.3);
    const half = altered(grainy, site, (p) => (smooth.data[3 * p]! + grainy.data[3 * p]!) / 2);
    expect(told(half, site)).toBeGreaterThan(0.4);
    expect(told(half, site)).toBeLessThan(0.7);
    expect(
      told(
        altered(smooth, site, (p) => grainy.data[3 * p]!),
        site,
      ),
    ).toBeGreaterThan(2);
  });

  test('is not asked of a site too narrow to have an inside', () => {
    const line = disc(60).filter((p) => Math.abs((p % width) - 100) <= 1);
    expect(
      told(
        altered(grainy, line, () => 120),
        line,
      ),
    ).toBe(1);
  });
});
