import { seededRandom } from '../random/random.js';
import type { Layer } from '../raster/layers.js';
import { isOnBoard } from './ink-board.js';

const [WIDTH, HEIGHT] = [220, 160];
const BREADTH = 4;

type Area = readonly [left: number, top: number, width: number, height: number];
interface Thing {
  readonly area: Area;
  readonly tone: number;
}

/** Rows of letters: uprights with a bar, in an area. */
function letters([left, top, width, height]: Area): Set<number> {
  const found = new Set<number>();
  const draw = ([x, y, w, h]: Area): void => {
    for (let v = y; v < y + h; v++) for (let u = x; u < x + w; u++) found.add(v * WIDTH + u);
  };
  for (let y = top; y + 16 <= top + height; y += 22)
    for (let x = left; x + 12 <= left + width; x += 16) {
      draw([x, y, BREADTH, 16]);
      draw([x, y + 6, 12, BREADTH]);
    }
  return found;
}

/** Restless ground with some even things on it, later ones on top, and letters on them. @param turn by what angle all of it is turned */
function scene(things: readonly Thing[], written: ReadonlySet<number>, turn = 0) {
  const random = seededRandom(4);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const ink: number[] = [];
  const values = Float32Array.from({ length: WIDTH * HEIGHT }, (_, p) => {
    const [x, y] = [(p % WIDTH) - WIDTH / 2, Math.floor(p / WIDTH) - HEIGHT / 2];
    const u = Math.round(x * cos + y * sin + WIDTH / 2);
    const v = Math.round(y * cos - x * sin + HEIGHT / 2);
    const isWithin = ([left, top, width, height]: Area): boolean =>
      u >= left && u < left + width && v >= top && v < top + height;
    if (u >= 0 && u < WIDTH && written.has(v * WIDTH + u)) {
      ink.push(p);
      return 230;
    }
    const thing = things.findLast(({ area }) => isWithin(area));
    return thing ? thing.tone + random.between(-3, 3) : random.between(60, 180);
  });
  const layer: Layer = { grey: { width: WIDTH, height: HEIGHT, values }, colours: [] };
  return isOnBoard(layer, [Int32Array.from(ink)], BREADTH);
}

const BOARD: Thing = { area: [50, 40, 120, 76], tone: 40 };
const ON_BOARD = letters([60, 50, 100, 60]);

test.each([0, 0.3, -0.5])('letters that take up a board stand on it: turned by %d', (turn) => {
  expect(scene([BOARD], ON_BOARD, turn)).toBe(true);
});

test('so they do with a frame of their colour around it, and where the picture cuts the board off', () => {
  const frame = new Set(ON_BOARD);
  for (let y = 40; y < 116; y++)
    for (let x = 50; x < 170; x++)
      if (Math.min(x - 50, 169 - x, y - 40, 115 - y) < BREADTH) frame.add(y * WIDTH + x);
  expect(scene([BOARD], frame)).toBe(true);
  expect(scene([{ area: [50, 84, 120, 76], tone: 40 }], letters([60, 94, 100, 60]))).toBe(true);
});

test('a hair across a board leaves it one', () => {
  const hair: Thing[] = Array.from({ length: 40 }, (_, k) => ({
    area: [46 + 3 * k + (k % 2), 36 + 2 * k, 4, 3],
    tone: 150,
  }));
  expect(scene([BOARD, ...hair], ON_BOARD)).toBe(true);
});

test('what runs over several things is on the photograph', () => {
  const things: Thing[] = [
    { area: [40, 40, 70, 76], tone: 40 },
    { area: [110, 40, 70, 76], tone: 110 },
  ];
  expect(scene(things, ON_BOARD)).toBe(false);
  expect(scene([], ON_BOARD)).toBe(false);
});

test('a sky is no board, nor is a wall with a line in its corner', () => {
  expect(scene([{ area: [0, 0, WIDTH, 70], tone: 40 }], letters([20, 10, 170, 40]))).toBe(false);
  expect(scene([BOARD], letters([54, 44, 40, 20]))).toBe(false);
});

test('an even thing that is not four-cornered is no board', () => {
  const steps = [0, 1, 2, 3, 4, 5, 6].map((k): Thing => ({
    area: [50, 40 + 11 * k, 18 + 17 * k, 11],
    tone: 40,
  }));
  expect(scene(steps, letters([53, 84, 60, 20]))).toBe(false);
});

test('a rim along letters, too thin for a board, is none', () => {
  const bar = new Set<number>();
  for (let y = 80; y < 84; y++) for (let x = 30; x < 190; x++) bar.add(y * WIDTH + x);
  // Above, below and at one end.
  const rim: Thing[] = [
    { area: [25, 75, 165, 3], tone: 20 },
    { area: [25, 86, 165, 3], tone: 20 },
    { area: [25, 75, 3, 14], tone: 20 },
  ];
  expect(scene(rim, bar)).toBe(false);
});
