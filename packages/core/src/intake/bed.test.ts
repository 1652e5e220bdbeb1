import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { printsOn } from './bed.js';
import type { Quad } from './quad.js';
import { insideQuad, quadTurn, rectangleOf } from './quad.js';
import { uprightPrint } from './upright.js';

interface Print {
  readonly at: readonly [number, number];
  readonly size: readonly [number, number];
  readonly turn: number;
  readonly border: number;
}

const PRINTS: Print[] = [
  { at: [190, 160], size: [260, 190], turn: 4, border: 0 },
  { at: [520, 170], size: [240, 180], turn: -6.5, border: 9 },
  { at: [340, 430], size: [180, 240], turn: 0.7, border: 0 },
];

function quadFor({ at: [cx, cy], size: [w, h], turn }: Print): Quad {
  const a = (-turn * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return [
    [-w / 2, -h / 2],
    [w / 2, -h / 2],
    [w / 2, h / 2],
    [-w / 2, h / 2],
  ].map(([x, y]) => [cx + c * x! - s * y!, cy + s * x! + c * y!]) as unknown as Quad;
}

/** A scanner's bed: pale glass, dark prints, one of them with a white border, soft shadows to the right and below. */
function bed(): Raster {
  const [W, H] = [720, 600];
  const picture = createRaster(W, H, 3);
  const random = seededRandom(3);
  const quads = PRINTS.map(quadFor);
  const over = 3;
  for (let y = 0, p = 0; y < H; y++)
    for (let x = 0; x < W; x++, p++) {
      let [r, g, b] = [0, 0, 0];
      for (let k = 0; k < over * over; k++) {
        const at: [number, number] = [
          x - 0.5 + ((k % over) + 0.5) / over,
          y - 0.5 + (Math.floor(k / over) + 0.5) / over,
        ];
        const k2 = quads.findIndex((q) => insideQuad(q, at));
        if (k2 < 0) {
          r += 244;
          g += 244;
          b += 244;
          continue;
        }
        const { border, at: middle, size, turn } = PRINTS[k2]!;
        const a = (turn * Math.PI) / 180;
        const [dx, dy] = [at[0] - middle[0], at[1] - middle[1]];
        const u = Math.abs(Math.cos(a) * dx - Math.sin(a) * dy);
        const v = Math.abs(Math.sin(a) * dx + Math.cos(a) * dy);
        if (size[0] / 2 - u < border || size[1] / 2 - v < border) {
          r += 238;
          g += 235;
          b += 228;
        } else {
          const tone = 60 + 40 * Math.sin(at[0] / 9) * Math.cos(at[1] / 13);
          r += tone + 20;
          g += tone;
          b += tone - 10;
        }
      }
      const n = over * over;
      const noise = random.between(-2, 2);
      picture.data[3 * p] = r / n + noise;
      picture.data[3 * p + 1] = g / n + noise;
      picture.data[3 * p + 2] = b / n + noise;
    }
  return picture;
}

test('every print on a bed is found by its paper’s edge, in reading order', () => {
  const picture = bed();
  const found = printsOn(picture);
  expect(found).toHaveLength(PRINTS.length);
  found.forEach(({ quad, edges }, k) => {
    expect(edges).toBe(4);
    const truth = quadFor(PRINTS[k]!);
    quad.forEach(([x, y], c) => {
      expect(Math.abs(x - truth[c]![0])).toBeLessThan(1);
      expect(Math.abs(y - truth[c]![1])).toBeLessThan(1);
    });
    expect(Math.abs(quadTurn(quad) - PRINTS[k]!.turn)).toBeLessThan(0.1);
    const print = uprightPrint(picture, quad);
    expect(Math.abs(print.width - PRINTS[k]!.size[0])).toBeLessThanOrEqual(1);
    expect(Math.abs(print.height - PRINTS[k]!.size[1])).toBeLessThanOrEqual(1);
  });
});

test('an empty bed has no prints', () => {
  const picture = createRaster(300, 200, 3);
  picture.data.fill(240);
  expect(printsOn(picture)).toEqual([]);
});

test('the rectangle of a true rectangle is itself', () => {
  const quad = quadFor(PRINTS[0]!);
  rectangleOf(quad).forEach(([x, y], k) => {
    expect(x).toBeCloseTo(quad[k]![0], 6);
    expect(y).toBeCloseTo(quad[k]![1], 6);
  });
});
