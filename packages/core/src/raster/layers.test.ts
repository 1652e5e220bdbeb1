import { seededRandom } from '../random/random.js';
import { layerAt } from './layers.js';
import type { Raster } from './raster.js';
import { createRaster } from './raster.js';

function made(width: number, height: number, channels: 1 | 3 | 4, depth: 'u8' | 'u16'): Raster {
  const raster = createRaster(width, height, channels, depth);
  const random = seededRandom(channels);
  const most = depth === 'u8' ? 255 : 65535;
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, most);
  return raster;
}

/** Mean of one channel over a square block, 0..255, the plain way. */
function meanOf({ width, channels, data }: Raster, c: number, x: number, y: number, side: number) {
  let sum = 0;
  for (let v = 0; v < side; v++)
    for (let u = 0; u < side; u++)
      sum += data[((y * side + v) * width + x * side + u) * channels + c]!;
  return sum / (side * side) / (data instanceof Uint8Array ? 1 : 257);
}

describe('layers of a picture', () => {
  const kinds = [
    [3, 'u8'],
    [3, 'u16'],
    [4, 'u8'],
  ] as const;
  test.each(kinds)('are means of blocks in every colour, %d channels of %s', (channels, depth) => {
    const picture = made(37, 22, channels, depth);
    for (const level of [0, 1, 2, 3]) {
      const side = 1 << level;
      const { grey, colours } = layerAt(picture, level);
      expect([grey.width, grey.height]).toEqual([37 >> level, 22 >> level]);
      expect(colours).toHaveLength(3);
      for (let y = 0; y < grey.height; y++)
        for (let x = 0; x < grey.width; x++) {
          const p = y * grey.width + x;
          const means = [0, 1, 2].map((c) => meanOf(picture, c, x, y, side));
          means.forEach((mean, c) => expect(colours[c]!.values[p]).toBeCloseTo(mean, 3));
          // ITU-R BT.601
          const luma = 0.299 * means[0]! + 0.587 * means[1]! + 0.114 * means[2]!;
          expect(grey.values[p]).toBeCloseTo(luma, 3);
        }
    }
  });

  test('of a grey picture have no colours', () => {
    const picture = made(19, 13, 1, 'u8');
    const { grey, colours } = layerAt(picture, 1);
    expect(colours).toEqual([]);
    expect([grey.width, grey.height]).toEqual([9, 6]);
    for (let p = 0; p < grey.values.length; p++)
      expect(grey.values[p]).toBeCloseTo(meanOf(picture, 0, p % 9, Math.floor(p / 9), 2), 3);
  });
});
