import { seededRandom } from '../random/random.js';
import type { Channels, Depth, Raster } from '../raster/raster.js';
import { colourChannels, createRaster, sampleBytes, whiteOf } from '../raster/raster.js';
import { firstState } from '../random/random.js';
import { openArena } from '../wasm/arena.js';
import { GRAIN_RING, grainBack } from './grain-back.js';
import type { RepairKernel } from './kernel.js';
import { functionsFor } from './kernel.js';
import { addGrainPlainly, finenessPlainly, placesPlainly } from './plain/grain.js';
import { REPAIR_KERNEL } from './repair-kernel.js';

const [width, height] = [90, 80];
const site = Float32Array.from({ length: width * height }, (_, p) =>
  Math.hypot((p % width) - 45, Math.floor(p / width) - 40) <= 24 ? 1 : 0,
);

/** Even ground with white grain of so many codes' deviation outside, and another within the site. */
function ground(outside: number, inside: number, depth: 'u8' | 'u16' = 'u16'): Raster {
  const picture = createRaster(width, height, 3, depth);
  const random = seededRandom(6);
  const codes = depth === 'u8' ? 1 : 257;
  for (let p = 0; p < width * height; p++) {
    const four = random.unit() + random.unit() + random.unit() + random.unit() - 2;
    const v = 120 + Math.sqrt(3) * four * (site[p] ? inside : outside);
    picture.data.fill(Math.round(v * codes), 3 * p, 3 * p + 3);
  }
  return picture;
}

/** Standard deviation of a channel where the site is, or is not, codes of 8 bits. */
function deviation({ data }: Raster, within: boolean, codes = 257): number {
  const values = [...site.keys()]
    .filter((p) => site[p] === (within ? 1 : 0))
    .map((p) => data[3 * p]! / codes);
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
}

test('a site without grain gets what its surroundings have, and nothing else is touched', () => {
  const before = ground(6, 0);
  const after = grainBack(before, site, 1, 3);
  expect(deviation(after, true)).toBeGreaterThan(0.9 * 6);
  expect(deviation(after, true)).toBeLessThan(1.1 * 6);
  for (let p = 0; p < site.length; p++)
    if (!site[p]) expect(after.data[3 * p]).toBe(before.data[3 * p]);
});

test('what is lacking is added as variances add: 4 codes to 3 make 5', () => {
  const after = grainBack(ground(5, 3), site, 1, 3);
  expect(deviation(after, true)).toBeGreaterThan(4.6);
  expect(deviation(after, true)).toBeLessThan(5.4);
});

test('half a share gives back half of what is lacking', () => {
  expect(deviation(grainBack(ground(6, 0), site, 0.5, 3), true)).toBeCloseTo(3, 0);
});

test('a site with more grain than its surroundings stays as it is; so does one too small to tell', () => {
  const rough = ground(2, 6);
  expect(grainBack(rough, site, 1, 3).data).toEqual(rough.data);
  const speck = site.map((_, p) => (p === 40 * width + 45 ? 1 : 0));
  const even = ground(6, 0);
  expect(grainBack(even, speck, 1, 3).data).toEqual(even.data);
});

test('the same seed gives the same bytes, another one others; all channels alike; softness counts', () => {
  const picture = ground(6, 0, 'u8');
  const one = grainBack(picture, site, 1, 3);
  expect(grainBack(picture, site, 1, 3).data).toEqual(one.data);
  expect(grainBack(picture, site, 1, 4).data).not.toEqual(one.data);
  const p = 40 * width + 45;
  expect(one.data[3 * p]).toBe(one.data[3 * p + 1]);
  expect(deviation(one, true, 1)).toBeGreaterThan(5);
  expect(GRAIN_RING).toBeGreaterThanOrEqual(5);
});

test('a narrow site is given little, and all of it when all is asked for', () => {
  const even = ground(6, 0);
  // Strips of 9 px: just over half of their pixels lie well inside.
  const strips = site.map((s, p) => (s && (p % width) % 14 < 9 ? 1 : 0));
  const picture = { ...even, data: even.data.slice() };
  const random = seededRandom(9);
  for (let p = 0; p < strips.length; p++)
    if (site[p] && !strips[p]) {
      const four = random.unit() + random.unit() + random.unit() + random.unit() - 2;
      picture.data.fill(Math.round((120 + Math.sqrt(3) * four * 6) * 257), 3 * p, 3 * p + 3);
    }
  const given = (share: number): number => {
    const { data } = grainBack(picture, strips, share, 3);
    const inside = [...strips.keys()].filter((p) => strips[p]).map((p) => data[3 * p]! / 257 - 120);
    return Math.sqrt(inside.reduce((sum, v) => sum + v * v, 0) / inside.length);
  };
  expect(given(0.7)).toBeLessThan(0.2 * 6);
  expect(given(1)).toBeGreaterThan(0.85 * 6);
  expect(given(1)).toBeLessThan(1.15 * 6);
});

test.each<[Depth, Channels]>([
  ['u8', 3],
  ['u8', 1],
  ['u16', 4],
  ['f32', 2],
])('places, fineness and grain agree with the plain twins: %s, %i channels', (depth, channels) => {
  const random = seededRandom(channels);
  const picture = createRaster(width, height, channels, depth);
  const white = whiteOf(picture.data);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.unit() * white;
  const coverage = site.map((s, p) => (s && random.unit() < 0.98 ? (p % 3 ? 1 : 0.99) : 0));
  const n = width * height;
  const arena = openArena<RepairKernel>(REPAIR_KERNEL, picture.data.byteLength + 16 * n, 5, {
    shared: true,
  });
  const kernel = functionsFor(arena.kernel, picture.data.BYTES_PER_ELEMENT);
  const samples = arena.bytes(picture.data.byteLength);
  const cover = arena.floats(n);
  const [places, counts, sizes] = [arena.words(n), arena.words(2), arena.doubles(n)];
  samples.set(sampleBytes(picture.data));
  cover.set(coverage);
  const form = [width, channels, colourChannels(channels)] as const;

  for (const [step, within] of [
    [1, true],
    [3, false],
  ] as const) {
    const room = { x: 3, y: 5, width: 80, height: 70 };
    kernel.places(
      cover.byteOffset,
      width,
      ...([3, 5, 83, 75] as const),
      step,
      within ? 1 : 0,
      places.byteOffset,
      counts.byteOffset,
    );
    const plain = placesPlainly(coverage, width, room, step, within);
    expect(Array.from(counts)).toEqual([plain.places.length, plain.all]);
    expect(Array.from(places.subarray(0, counts[0]))).toEqual(plain.places);
    expect(plain.places.length).toBeGreaterThan(100);

    const [from, into] = [places.byteOffset, sizes.byteOffset];
    kernel.fineness(samples.byteOffset, ...form, from, counts[0]!, 4, into);
    const wanted = plain.places.filter((_, k) => k % 4 === 0);
    expect(Array.from(sizes.subarray(0, wanted.length))).toEqual(
      wanted.map((p) => finenessPlainly(picture, p)),
    );
  }

  const box = { x: 20, y: 15, width: 50, height: 45 };
  const [at, by] = [samples.byteOffset, 0.03 * white];
  const ends = [20, 15, 70, 60] as const;
  kernel.grain(at, cover.byteOffset, ...form, ...ends, by, white, firstState(7));
  const before = picture.data.slice();
  addGrainPlainly(picture, coverage, box, by, 7);
  expect(picture.data).not.toEqual(before);
  expect(samples).toEqual(sampleBytes(picture.data));
});
