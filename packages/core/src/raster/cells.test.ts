import { seededRandom } from '../random/random.js';
import { cellsOf } from './cells.js';
import { cellsPlainly } from './plain/cells.js';
import type { Raster } from './raster.js';

const KINDS = [Uint8Array, Uint16Array, Float32Array] as const;

test.each(
  KINDS.flatMap((Kind) => [1, 2, 3, 4].map((channels) => [Kind.name, channels, Kind] as const)),
)('the kernel sums %s of %d channels as its twin does', (_, channels, Kind) => {
  const random = seededRandom(channels);
  const [width, height] = [53, 38];
  const data = new Kind(width * height * channels);
  for (let i = 0; i < data.length; i++)
    data[i] =
      Kind === Float32Array ? random.unit() : random.between(0, Kind === Uint8Array ? 255 : 65535);
  const closed = Uint8Array.from({ length: width * height }, () => (random.unit() < 0.3 ? 1 : 0));
  const picture = { width, height, channels, data } as Raster;
  for (const cell of [4, 7, 60])
    expect(cellsOf(picture, closed, cell)).toEqual(cellsPlainly(picture, closed, cell));
});

test('a cell holds the px and the steps within the picture', () => {
  const data = Uint8Array.from([10, 30, 30, 0, 0, 5]);
  const { columns, rows, sums } = cellsOf(
    { width: 3, height: 2, channels: 1, data },
    Uint8Array.from([0, 0, 0, 0, 1, 0]),
    2,
  );
  expect([columns, rows]).toEqual([2, 1]);
  // Steps of 10 to 30, 30 to 30, and from 0 to the closed one's 0; the last of a row has none.
  expect([...sums]).toEqual([3, 40, 40, 40, 20, 2, 35, 35, 35, 0]);
});
