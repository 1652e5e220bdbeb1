import type { Raster } from '@tersum/core';
import { coverageOf, createRaster, frameOf, seededRandom } from '@tersum/core';
import { strToU8, zipSync } from 'fflate';
import { laidOut } from './layered.js';
import type { OpenLayer } from './openraster.js';
import { decodeOpenRaster, encodeOpenRaster, isOpenRaster } from './openraster.js';
import { UserProblem } from './problem.js';

const random = seededRandom(8);
const BARE = { icc: null, exif: null, ppi: 400 };

function noise(width: number, height: number, channels: 3 | 4, depth: 'u8' | 'u16'): Raster {
  const raster = createRaster(width, height, channels, depth);
  const most = depth === 'u8' ? 255 : 65535;
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, most);
  return raster;
}

const layer = (raster: Raster, x: number, y: number, more: Partial<OpenLayer> = {}): OpenLayer => ({
  name: 'Layer',
  x,
  y,
  visible: true,
  opacity: 1,
  raster,
  ...more,
});

/** What copying every shown layer from the sheet onto the base comes to. */
function copied({ base, sheet, layers }: ReturnType<typeof laidOut>): Raster {
  const out = { ...base, data: base.data.slice() };
  for (const { outlines, shift, visible } of layers)
    for (const points of visible ? outlines : []) {
      const { rect, values } = coverageOf(
        { kind: 'outline', points: [...points] },
        { width: 1, softness: 0, flow: 1 },
        frameOf(base),
      );
      values.forEach((cover, k) => {
        if (!cover) return;
        const [x, y] = [rect.x + (k % rect.width), rect.y + Math.floor(k / rect.width)];
        const from = ((y + shift[1]) * sheet!.width + x + shift[0]) * base.channels;
        const to = (y * base.width + x) * base.channels;
        for (let c = 0; c < base.channels; c++) out.data[to + c] = sheet!.data[from + c]!;
      });
    }
  return out;
}

test.each(['u8', 'u16'] as const)(
  'layers copied from the sheet come to the picture laid over plainly, %s',
  (depth) => {
    const [one, two, three] = [
      noise(30, 20, 4, depth),
      noise(25, 25, 4, depth),
      noise(9, 9, 4, depth),
    ];
    // Alpha of all kinds, and holes.
    one.data.forEach((_, i) => i % 4 === 3 && i % 28 < 12 && (one.data[i] = 0));
    const layers = [
      layer(noise(60, 50, 3, depth), 0, 0),
      layer(one, 5, 8),
      layer(two, 20, 14, { opacity: 0.4 }),
      layer(three, 1, 1, { visible: false }),
      layer(three, 55, 45),
    ];
    const laid = laidOut({ width: 60, height: 50, layers });
    expect(laid.layers.map((l) => l.visible)).toEqual([true, true, false, true]);
    const expected = { ...layers[0]!.raster, data: Float64Array.from(layers[0]!.raster.data) };
    const white = depth === 'u8' ? 255 : 65535;
    for (const { x, y, opacity, raster, visible } of layers.slice(1))
      for (let p = 0; visible && p < raster.width * raster.height; p++) {
        const [u, v] = [x + (p % raster.width), y + Math.floor(p / raster.width)];
        if (u >= 60 || v >= 50) continue;
        const share = (opacity * raster.data[4 * p + 3]!) / white;
        for (let c = 0; c < 3; c++) {
          const i = 3 * (v * 60 + u) + c;
          expected.data[i] = Math.round(
            expected.data[i]! + (raster.data[4 * p + c]! - expected.data[i]!) * share,
          );
        }
      }
    expect([...copied(laid).data]).toEqual([...expected.data]);
  },
);

test('a file of one layer has no sheet; a layer that covers nothing is left out', () => {
  const only = layer(noise(20, 20, 3, 'u8'), 0, 0);
  expect(laidOut({ width: 20, height: 20, layers: [only] })).toMatchObject({
    sheet: null,
    layers: [],
  });
  const clear = layer(createRaster(5, 5, 4), 3, 3);
  expect(laidOut({ width: 20, height: 20, layers: [only, clear] }).layers).toEqual([]);
});

test('a layered file is known by its head, its density is read, and what cannot be kept is refused', async () => {
  const base = noise(20, 16, 3, 'u8');
  const picture = { width: 20, height: 16, layers: [layer(base, 0, 0)] };
  const file = await encodeOpenRaster(picture, base, BARE);
  expect(isOpenRaster(file.subarray(0, 64))).toBe(true);
  expect(isOpenRaster(strToU8('PK no such thing'))).toBe(false);
  expect((await decodeOpenRaster(file)).ppi).toBe(400);
  const withStack = (stack: string): Uint8Array =>
    zipSync({
      mimetype: [strToU8('image/openraster'), { level: 0 }],
      'stack.xml': strToU8(`<image w="20" h="16"><stack>${stack}</stack></image>`),
    });
  for (const stack of [
    '',
    '<layer src="data/none.png"/>',
    '<layer src="a.png" composite-op="svg:multiply"/>',
    '<stack><layer src="a.png"/></stack><layer src="a.png"/>',
  ])
    await expect(decodeOpenRaster(withStack(stack))).rejects.toThrow(UserProblem);
});
