import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { survey } from './survey.js';

const [WIDTH, HEIGHT] = [480, 320];
const PAPER = [238, 232, 222];
const DARK = [90, 74, 50];

/** Where the crease runs at a row, jagged. */
const middles = ((): readonly number[] => {
  const random = seededRandom(5);
  return Array.from(
    { length: HEIGHT },
    (_, y) => 200 + 0.2 * y + 5 * Math.sin(y / 30) + random.between(-15, 15) / 10,
  );
})();

/** A crease from top to bottom through a sky above and dark ground below. */
function creased(sky: readonly number[]) {
  const random = seededRandom(8);
  const raster = createRaster(WIDTH, HEIGHT, 3);
  const truth = new Uint8Array(WIDTH * HEIGHT);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const paper = Math.abs(x - middles[y]!) < 6;
      const grain = random.between(-6, 6);
      const own = y < 140 ? sky : DARK;
      if (paper) truth[p] = 1;
      raster.data.set(
        (paper ? PAPER : own).map((v) => Math.max(0, Math.min(255, v + grain))),
        3 * p,
      );
    }
  return { raster, truth };
}

/** Shares of the truth that is found, and of what is found that is true within 2 px, in a band of rows. */
function shares(sky: readonly number[], from: number, to: number): [number, number] {
  const { raster, truth } = creased(sky);
  const found = new Set<number>();
  for (const { kind, pixels } of survey(raster, { kinds: ['creases'] }))
    if (kind === 'creases') for (const p of pixels) found.add(p);
  let [all, met, told, right] = [0, 0, 0, 0];
  for (let p = from * WIDTH; p < to * WIDTH; p++) {
    if (truth[p]) {
      all++;
      if (found.has(p)) met++;
    }
    if (found.has(p)) {
      told++;
      if (Math.abs((p % WIDTH) - middles[Math.floor(p / WIDTH)]!) < 8) right++;
    }
  }
  return [met / all, told ? right / told : 0];
}

test('a rim that turns round is no crease, though it is as pale and as broad', () => {
  const random = seededRandom(6);
  const raster = createRaster(WIDTH, HEIGHT, 3);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const out = Math.hypot(x - 240, y - 160) - 110;
      const grain = random.between(-6, 6);
      raster.data.set(
        (Math.abs(out) < 6 ? PAPER : DARK).map((v) => v + grain),
        3 * p,
      );
    }
  expect(survey(raster, { kinds: ['creases'] })).toHaveLength(0);
});

/** A pale band between two grounds, as jagged and as far from both sides of the picture as asked. */
function banded(
  above: readonly number[],
  below: readonly number[],
  { jagged, inside }: { jagged: number; inside: number },
) {
  const random = seededRandom(11);
  const raster = createRaster(WIDTH, HEIGHT, 3);
  const edges = Array.from({ length: WIDTH }, () => (jagged * random.between(-10, 10)) / 10);
  for (let y = 0, p = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, p++) {
      const off = y - 150 - 0.06 * x + edges[x]!;
      const grain = random.between(-6, 6);
      const isBand = Math.abs(off) < 5 && x >= inside && x < WIDTH - inside;
      const own = isBand ? PAPER : off < 0 ? above : below;
      raster.data.set(
        own.map((v) => Math.max(0, Math.min(255, v + grain))),
        3 * p,
      );
    }
  return survey(raster, { kinds: ['creases'] });
}

test('a pale ledge between a wall and the street below it is no crease, one through the wall is', () => {
  const [wall, street] = [
    [96, 112, 140],
    [150, 92, 60],
  ];
  expect(banded(wall, street, { jagged: 0, inside: 70 })).toHaveLength(0);
  expect(banded(wall, wall, { jagged: 1.5, inside: 0 })).toHaveLength(1);
});

describe('creases', () => {
  test('are followed through dark ground', () => {
    const [recall, precision] = shares([150, 140, 120], 0, HEIGHT);
    expect(recall).toBeGreaterThan(0.9);
    expect(precision).toBeGreaterThan(0.95);
  });

  test('are told from a yellowed sky nearly as bright by the colour of paper', () => {
    const [recall, precision] = shares([240, 224, 180], 10, 130);
    expect(recall).toBeGreaterThan(0.85);
    expect(precision).toBeGreaterThan(0.9);
  });

  test('are told from a grey sky as bright by their colour', () => {
    const [recall, precision] = shares([232, 232, 232], 10, 130);
    expect(recall).toBeGreaterThan(0.85);
    expect(precision).toBeGreaterThan(0.9);
  });
});
