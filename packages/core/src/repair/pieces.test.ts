import { LANES, nodesAlong, SQUARE } from '../predict/tile.js';
import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { layCopies } from './laid-copies.js';
import { Narrowness } from './narrowness.js';
import { openPieces, UNLIKE } from './pieces.js';
import type { Sums } from './plain/misfit.js';
import { addMisfitPlainly } from './plain/misfit.js';
import { narrowAt } from './plain/narrow-at.js';
import { KINDS, ROOMS, scene } from './plain/scene.js';

const DETAIL = { strength: 1, softest: 1, half: 2 };

/** How far squares go over by their misfit alone: each told by itself and those round it, all of it at UNLIKE. */
function weightsOf({ unlike, steps }: Sums, wide: number, high: number): number[] {
  const round = (sums: Float64Array, x: number, y: number): number => {
    let sum = 0;
    for (let v = Math.max(0, y - 1); v <= Math.min(high - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(wide - 1, x + 1); u++)
        sum += sums[v * wide + u]!;
    return sum;
  };
  return Array.from({ length: wide * high }, (_, node) => {
    const [x, y] = [node % wide, Math.floor(node / wide)];
    const whole = round(steps, x, y);
    return whole > 0 ? Math.min(1, Math.min(1, round(unlike, x, y) / whole) / UNLIKE) : 1;
  });
}

test.each(KINDS)('pieces are laid into tiles as they stand: %s, %i channels', (depth, channels) => {
  const { picture, copies, white, random } = scene(depth, channels, 9);
  // Slopes that are nearly alike all over.
  for (let i = 0; i < picture.data.length; i++) {
    const p = Math.floor(i / channels);
    const slope = (0.6 * (p % picture.width)) / picture.width + p / picture.data.length / 3;
    picture.data[i] = white * (slope + 0.004 * random.unit());
  }
  const laid = layCopies(picture, copies.from);
  // A part of it is rather deep.
  const deep = copies.mask.slice();
  for (let y = 0; y < 20; y++) deep.fill(1, y * picture.width, y * picture.width + 20);
  const narrowness = new Narrowness(deep, picture);
  laid.colour.set(laid.colour.map(() => random.unit() * white));
  const pieces = openPieces(laid, copies.mask, narrowness, { width: 40, height: 35 }, ROOMS.length);
  const tiles = pieces.lay(ROOMS.map((room) => ({ core: room, room, detail: DETAIL })));
  ROOMS.forEach((room, k) => {
    const { values, unknown, grid, stride } = tiles[k]!;
    const [colours, off] = [colourChannels(channels), new Set<string>()];
    for (let y = 0; y < room.height; y++)
      for (let x = 0; x < room.width; x++) {
        const p = (room.y + y) * picture.width + room.x + x;
        const cell = y * stride + x;
        const of = copies.mask[p] ? laid.colour : picture.data;
        for (let c = 0; c < LANES; c++) {
          const wanted = c < colours ? Math.fround(of[p * channels + c]!) : 0;
          if (values[LANES * cell + c] !== wanted) off.add(`value ${x} ${y}`);
        }
        // Cells at the sides are told from too few, those below from enough.
        const told = x >= 3 && y >= 3 && x < room.width - 3;
        if (unknown[cell] !== (told ? copies.mask[p] : 0)) off.add(`unknown ${x} ${y}`);
      }
    expect([...off]).toEqual([]);
    const [wide, high] = [nodesAlong(room.width), nodesAlong(room.height)];
    const sums = { unlike: new Float64Array(wide * high), steps: new Float64Array(wide * high) };
    addMisfitPlainly(picture, copies.from, room, sums);
    const wanted = weightsOf(sums, wide, high).map(
      (weight, node) =>
        weight *
        narrowAt(
          narrowness,
          room.x + ((node % wide) - 0.5) * SQUARE,
          room.y + (Math.floor(node / wide) - 0.5) * SQUARE,
        ),
    );
    expect(wanted.some((weight) => weight % 0.5 > 0)).toBe(true);
    wanted.forEach((weight, node) => expect(grid[node]).toBeCloseTo(weight, 6));
  });
});

const [WIDTH, HEIGHT] = [80, 60];

function draw(tone: (x: number, y: number) => number): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let p = 0; p < data.length; p++) data[p] = tone(p % WIDTH, Math.floor(p / WIDTH));
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

/** How far squares go over, of a site in the middle that is copied from so far to the side. */
function weightsWith(picture: Raster, shift: number): Float32Array {
  const from = new Int32Array(WIDTH * HEIGHT).fill(-1);
  for (let y = 26; y < 34; y++)
    for (let x = 30; x < 40; x++) from[y * WIDTH + x] = y * WIDTH + x + shift;
  const mask = Uint8Array.from(from, (source) => (source >= 0 ? 1 : 0));
  const room = frameOf(picture);
  const pieces = openPieces(layCopies(picture, from), mask, new Narrowness(mask, picture), room, 1);
  const [tile] = pieces.lay([{ core: room, room, detail: DETAIL }]);
  return tile!.grid;
}

/** The weight of the square a pixel lies in. */
const told = (weights: Float32Array, x: number, y: number): number =>
  weights[(Math.floor(y / SQUARE) + 1) * nodesAlong(WIDTH) + Math.floor(x / SQUARE) + 1]!;

test('a pattern copied in step stays, whatever the tone; out of step it goes over', () => {
  const pattern = draw((x, y) => 100 + (x % 8 < 4 ? 40 : 0) + (y % 6 < 3 ? 20 : 0) + x / 2);
  const inStep = weightsWith(pattern, 16);
  expect(told(inStep, 31, 27)).toBeLessThan(0.01 / UNLIKE);
  expect(told(inStep, 38, 32)).toBeLessThan(0.01 / UNLIKE);
  const outOfStep = weightsWith(pattern, 18);
  expect(told(outOfStep, 31, 27)).toBe(1);
});

test('noise has nothing to do with noise: it goes over wholly', () => {
  const random = seededRandom(4);
  const weights = weightsWith(
    draw(() => 128 + random.between(-30, 30)),
    20,
  );
  for (const [x, y] of [
    [30, 26],
    [35, 30],
    [39, 33],
  ] as const)
    expect(told(weights, x, y)).toBe(1);
});

test('far from any rim nothing is known: all of the way', () => {
  const flat = draw(() => 90);
  expect(told(weightsWith(flat, 20), 5, 5)).toBe(1);
});
