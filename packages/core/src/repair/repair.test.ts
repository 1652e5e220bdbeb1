import { Matrix, solve } from 'ml-matrix';
import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { clone } from './clone.js';
import { graft } from './graft.js';

const W = 12;
const H = 10;

function noise(seed: number, depth: 'u8' | 'u16' | 'f32' = 'u8', channels: 1 | 3 | 4 = 3): Raster {
  const random = seededRandom(seed);
  const raster = createRaster(W, H, channels, depth);
  const white = depth === 'u8' ? 255 : depth === 'u16' ? 65535 : 1;
  for (let i = 0; i < raster.data.length; i++)
    raster.data[i] = depth === 'f32' ? random.unit() : Math.floor(random.unit() * (white + 1));
  return raster;
}

function middle(value = 1): Float32Array {
  const coverage = new Float32Array(W * H);
  for (let y = 2; y < 8; y++) for (let x = 3; x < 9; x++) coverage[y * W + x] = value;
  return coverage;
}

const everywhere = new Uint8Array(W * H).fill(1);

describe('clone', () => {
  test.each(['u8', 'u16'] as const)(
    'copies the donor exactly inside and nothing outside, %s',
    (depth) => {
      const below = noise(1, depth);
      const donor = noise(2, depth);
      const coverage = middle();
      const out = clone({ below, donor, valid: everywhere, coverage }, 1);
      for (let i = 0; i < out.data.length; i++)
        expect(out.data[i]).toBe(coverage[Math.floor(i / 3)] ? donor.data[i] : below.data[i]);
    },
  );

  // Worked example: 100 + (200 - 100) * 0.5 * 0.5 = 125.
  test('lays coverage times strength of the donor over the site', () => {
    const below = { ...createRaster(W, H, 1), data: new Uint8Array(W * H).fill(100) };
    const donor = { ...createRaster(W, H, 1), data: new Uint8Array(W * H).fill(200) };
    const out = clone({ below, donor, valid: everywhere, coverage: middle(0.5) }, 0.5);
    expect(out.data[4 * W + 4]).toBe(125);
    expect(out.data[0]).toBe(100);
  });

  test('leaves pixels without a donor, and alpha, alone', () => {
    const below = noise(3, 'u8', 4);
    const valid = Uint8Array.from(everywhere, (_, p) => (p % W < 6 ? 1 : 0));
    const out = clone({ below, donor: noise(4, 'u8', 4), valid, coverage: middle() }, 1);
    for (let p = 0; p < W * H; p++) {
      expect(out.data[4 * p + 3]).toBe(below.data[4 * p + 3]);
      if (!valid[p]) expect(out.data[4 * p]).toBe(below.data[4 * p]);
    }
  });

  test('a donor equal to the site changes nothing', () => {
    const below = noise(5, 'u16');
    const out = clone({ below, donor: below, valid: everywhere, coverage: middle() }, 1);
    expect(out.data).toEqual(below.data);
  });
});

describe('graft', () => {
  // The Poisson system of Perez, Gangnet, Blake 2003, eq. 7, set up and solved densely on its own:
  // 4 f(p) - sum over neighbours inside of f(q) = sum over the ring of f*(q) + sum of g(p) - g(q).
  test('is the solution of the Poisson system to 1e-6', () => {
    const below = noise(6, 'f32', 1);
    const donor = noise(7, 'f32', 1);
    const coverage = middle();
    const out = graft({ below, donor, valid: everywhere, coverage }, 1, {
      border: 'plain',
      tolerance: 1e-12,
    });
    const inside: number[] = [];
    coverage.forEach((v, p) => v && inside.push(p));
    const A = Matrix.zeros(inside.length, inside.length);
    const b = new Array<number>(inside.length).fill(0);
    inside.forEach((p, i) => {
      for (const q of [p + 1, p - 1, p + W, p - W]) {
        A.set(i, i, A.get(i, i) + 1);
        b[i]! += donor.data[p]! - donor.data[q]!;
        const j = inside.indexOf(q);
        if (j >= 0) A.set(i, j, -1);
        else b[i]! += below.data[q]!;
      }
    });
    const exact = solve(A, Matrix.columnVector(b)).to1DArray();
    inside.forEach((p, i) => {
      const clipped = Math.min(1, Math.max(0, exact[i]!));
      expect(Math.abs(out.data[p]! - clipped)).toBeLessThan(1e-6);
    });
  });

  test('takes the surroundings’ tone: a donor that is only darker leaves no trace', () => {
    const below = noise(8);
    for (let i = 0; i < below.data.length; i++) below.data[i] = 60 + (below.data[i]! >> 1);
    const donor = { ...below, data: below.data.map((v) => v - 50) };
    const out = graft({ below, donor, valid: everywhere, coverage: middle() }, 1);
    expect(out.data).toEqual(below.data);
  });

  test('is within one code of the exact solution at its usual tolerance, 8 bits', () => {
    const below = noise(21);
    const donor = noise(22);
    for (const r of [below, donor]) r.data.forEach((v, i) => (r.data[i] = 80 + (v >> 2)));
    const input = { below, donor, valid: everywhere, coverage: middle() };
    const exact = graft(input, 1, { tolerance: 1e-12 });
    graft(input, 1).data.forEach((v, i) =>
      expect(Math.abs(v - exact.data[i]!)).toBeLessThanOrEqual(1),
    );
  });

  test('keeps the picture outside the site, at the picture’s border too', () => {
    const below = noise(9, 'u16');
    const coverage = new Float32Array(W * H);
    for (let y = 0; y < 4; y++) for (let x = 0; x < 5; x++) coverage[y * W + x] = 1;
    const out = graft({ below, donor: noise(10, 'u16'), valid: everywhere, coverage }, 1);
    for (let p = 0; p < W * H; p++)
      if (!coverage[p]) expect(out.data[3 * p]).toBe(below.data[3 * p]);
  });

  test('strength 0 changes nothing', () => {
    const below = noise(11);
    const out = graft({ below, donor: noise(12), valid: everywhere, coverage: middle() }, 0);
    expect(out.data).toEqual(below.data);
  });
});
