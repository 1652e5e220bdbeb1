import {
  createRaster,
  fill,
  frameOf,
  laplacian,
  packDonorMap,
  searchFill,
  seededRandom,
  solveSystem,
} from '@tersum/core';
import { ThreadCrew } from './thread-crew.js';

function madeUp(width: number, height: number) {
  const random = seededRandom(8);
  const picture = createRaster(width, height, 3);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = 60 + ((i >> 5) % 90) + random.between(0, 60);
  const hole = new Uint8Array(width * height);
  for (let y = 30; y < 130; y++) for (let x = 40; x < 180; x++) hole[y * width + x] = 1;
  return { picture, hole, none: new Uint8Array(hole.length) };
}

describe('a crew of threads', () => {
  test('however many threads, the same is decided, byte for byte', async () => {
    const { picture, hole, none } = madeUp(230, 170);
    const search = (more: object): Uint8Array =>
      packDonorMap(searchFill(picture, frameOf(picture), hole, none, { seed: 5, ...more }));
    const alone = search({});
    for (const threads of [1, 2, 3, 5]) {
      const crew = new ThreadCrew(threads);
      try {
        expect(search({ crew })).toEqual(alone);
        expect(search({ crew })).toEqual(alone);
      } finally {
        await crew.close();
      }
    }
  });

  test.each([2, 3])('%d threads replay a fill of narrow sites the same', async (threads) => {
    const { picture, none } = madeUp(420, 330);
    const hole = Uint8Array.from(none, (_, p) =>
      (p % 420) % 60 < 4 || Math.floor(p / 420) % 50 < 3 ? 1 : 0,
    );
    const origin = frameOf(picture);
    const map = searchFill(picture, origin, hole, none, { seed: 2 });
    const input = { below: picture, origin, map, coverage: Float32Array.from(hole) };
    const crew = new ThreadCrew(threads);
    try {
      const run = jest.spyOn(crew, 'run');
      expect(fill(input, 1, { crew }).data).toEqual(fill(input, 1).data);
      // Pieces were foretold side by side.
      expect(run.mock.calls.some(([, , , ranges]) => ranges.length > 1)).toBe(true);
    } finally {
      await crew.close();
    }
  });

  test.each([
    [2, 1e-3],
    [3, 1e-3],
    [2, 1e-7],
  ])('%d threads solve a system the same, to %d', async (threads, tolerance) => {
    const [width, height] = [310, 270];
    const random = seededRandom(3);
    const mask = Uint8Array.from({ length: width * height }, () => (random.unit() < 0.9 ? 1 : 0));
    const system = laplacian(mask, width, height);
    const b = new Float32Array(4 * system.cells).map(() => random.between(-90, 90));
    const crew = new ThreadCrew(threads);
    try {
      const run = jest.spyOn(crew, 'run');
      const solved = solveSystem(system, b, { tolerance, crew });
      expect(solved).toEqual(solveSystem(system, b, { tolerance }));
      expect(solved.rounds).toBeGreaterThan(2);
      // Both went through the rows of large levels.
      const ways = run.mock.calls.filter(([, name]) => name === 'down' || name === 'up');
      expect(ways.length).toBeGreaterThanOrEqual(4 * solved.rounds);
      expect(ways.every(([, , , ranges]) => ranges.length === 2)).toBe(true);
    } finally {
      await crew.close();
    }
  });

  test('calls every range once, and shares them out', async () => {
    const crew = new ThreadCrew(3);
    try {
      const { picture, hole, none } = madeUp(220, 160);
      const run = jest.spyOn(crew, 'run');
      searchFill(picture, frameOf(picture), hole, none, { crew });
      expect(run.mock.calls.some(([, , , ranges]) => ranges.length > 4)).toBe(true);
    } finally {
      await crew.close();
    }
  });

  test('a call that does not fit is refused', () => {
    const crew = new ThreadCrew(2);
    const ranges = Array.from({ length: 65 }, (_, k) => [k, k + 1] as const);
    const room = { module: {}, memory: { buffer: new ArrayBuffer(8), grow: () => 0 }, exports: {} };
    expect(() => crew.run(room, 'improve', [], ranges)).toThrow(RangeError);
    return crew.close();
  });
});
