import { NOT_FILLED, packDonorMap, sourceRects, unpackDonorMap } from '../fill/donor-map.js';
import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { crop, frameOf, paste } from '../raster/rect.js';
import { fill } from '../repair/fill.js';
import { canvasRect, onCanvas, roomAround } from './canvas.js';
import { sidesFilled } from './filled.js';
import { searchSides } from './sides-map.js';

const [width, height] = [90, 120];
const random = seededRandom(6);
const picture = createRaster(width, height, 3);
for (let y = 0, p = 0; y < height; y++)
  for (let x = 0; x < width; x++, p++) {
    const v = (y < 70 ? 150 : 60) + random.between(-9, 9);
    picture.data.set([v, v, v - 10], 3 * p);
  }
const sides = { left: 16, right: 0, top: 12, bottom: 0 };

test('a map of new sides covers them and nothing else, survives being packed, and is replayed to the sample', () => {
  const map = searchSides(picture, sides, null);
  expect(map.rect).toEqual({ x: -16, y: -12, width: 106, height: 132 });
  map.dx.forEach((d, i) => {
    const [x, y] = [(i % 106) - 16, Math.floor(i / 106) - 12];
    expect(d !== NOT_FILLED).toBe(x < 0 || y < 0);
  });
  // Left is cut at the floor's joint; top comes last.
  expect(map.bands!.map(({ rect }) => rect)).toEqual([
    { x: -16, y: 0, width: 16, height: 70 },
    { x: -16, y: 70, width: 16, height: 50 },
    { x: -16, y: -12, width: 106, height: 12 },
  ]);
  const again = unpackDonorMap(packDonorMap(map));
  expect(again).toEqual(map);
  expect(() => unpackDonorMap(packDonorMap(map).subarray(0, -4))).toThrow(RangeError);
  const origin = canvasRect(picture, sides);
  const { at: _, ...below } = onCanvas(picture, origin);
  const coverage = Float32Array.from(map.dx, (d) => (d === NOT_FILLED ? 0 : 1));
  const filled = fill({ below, origin, map: again, coverage }, 1);
  expect(filled.data).toEqual(sidesFilled(picture, sides, null).data);
  // What is read of the picture is what the bands look at.
  expect(sourceRects(map, origin)).toHaveLength(3);
});

test('rectangles are told in the coordinates of a raster that lies elsewhere', () => {
  const canvas = onCanvas(picture, canvasRect(picture, sides));
  expect(frameOf(canvas)).toEqual({ x: -16, y: -12, width: 106, height: 132 });
  expect(crop(canvas, frameOf(picture)).data).toEqual(picture.data);
  expect(() => crop(canvas, { x: -17, y: 0, width: 4, height: 4 })).toThrow(RangeError);
  const dot = createRaster(1, 1, 3);
  dot.data.set([1, 2, 3]);
  const changed = paste(canvas, dot, { x: -16, y: -12, width: 1, height: 1 });
  expect([...changed.data.subarray(0, 3)]).toEqual([1, 2, 3]);
  expect(frameOf(changed)).toEqual(frameOf(canvas));
  // A canvas that is smaller shows a part.
  const less = onCanvas(picture, { x: 10, y: 0, width: 50, height: 120 });
  expect(crop(less, { x: 12, y: 3, width: 5, height: 5 }).data).toEqual(
    crop(picture, { x: 12, y: 3, width: 5, height: 5 }).data,
  );
});

test('headroom and looking room, by hand', () => {
  // 1200 x 1800 in 1800 x 1800; a thing from 300 to 900 across and 450 to 1350 down.
  const room = roomAround(
    { width: 1200, height: 1800 },
    { left: 300, right: 300, top: 0, bottom: 0 },
    { x: 300, y: 450, width: 600, height: 900 },
  );
  expect(room).toEqual({ above: 0.25, below: 0.25, left: 1 / 3, right: 1 / 3 });
});

test('neither the subject nor the shadow beside it is copied into a new side', () => {
  const wide = createRaster(200, 100, 3);
  const closed = new Uint8Array(200 * 100);
  const subject = new Uint8Array(200 * 100);
  for (let y = 0, p = 0; y < 100; y++)
    for (let x = 0; x < 200; x++, p++) {
      const thing = x >= 30 && x < 50 && y >= 20 && y < 80;
      const shadow = x < 30 && y >= 60 && y < 80;
      const v = (shadow ? 60 : 120) + random.between(-4, 4);
      wide.data.set(thing ? [20, 90, 150] : [v, v, v], 3 * p);
      if (thing) subject[p] = 1;
      if (thing || shadow) closed[p] = 1;
    }
  const { rect, dx, dy } = searchSides(wide, { left: 16, right: 0, top: 0, bottom: 0 }, subject);
  let copied = 0;
  dx.forEach((d, i) => {
    if (d === NOT_FILLED) return;
    const x = rect.x + (i % rect.width) + d;
    const y = rect.y + Math.floor(i / rect.width) + dy[i]!;
    if (x >= 0) copied += closed[y * 200 + x]!;
  });
  expect(copied).toBe(0);
});
