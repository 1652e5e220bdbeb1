import { crop, frameOf, halveForDisplay, toDisplay } from '@tersum/core';
import { compose, sealPatch } from './patch.js';
import { testPicture } from './test-picture.js';
import {
  displayPyramid,
  levelCount,
  levelSize,
  repairedTile,
  TILE,
  tileRect,
  touchedTiles,
} from './tiles.js';

const size = { width: 1300, height: 700 };

describe('display tiles', () => {
  test('levels halve until one tile holds the picture', () => {
    expect(levelCount({ width: 256, height: 100 })).toBe(1);
    expect(levelCount(size)).toBe(4);
    expect(levelSize(size, 2)).toEqual({ width: 325, height: 175 });
    expect(tileRect(size, { level: 0, column: 5, row: 2 })).toEqual({
      x: 1280,
      y: 512,
      width: 20,
      height: 188,
    });
    expect(tileRect(size, { level: 0, column: 6, row: 0 }).width).toBe(0);
  });

  test('a repaired tile at any level is the repaired picture, brought down', () => {
    const original = testPicture(size.width, size.height, 'u16', 3);
    const rect = { x: 490, y: 300, width: 60, height: 300 };
    const samples = testPicture(60, 300, 'u16', 3);
    const patch = sealPatch(rect, samples, new Uint8Array(60 * 300).fill(1));
    const pyramid = displayPyramid(original);
    let whole = toDisplay(compose(original, [patch], frameOf(original)));
    for (let level = 0; level < levelCount(size); level++) {
      if (level) whole = halveForDisplay(whole);
      for (let row = 0; row * TILE < whole.height; row++)
        for (let column = 0; column * TILE < whole.width; column++) {
          const place = { level, column, row };
          const tile = repairedTile(original, pyramid, [patch], place);
          const at = tileRect(size, place);
          const wanted = crop(whole, at);
          expect(Buffer.compare(Buffer.from(tile.data), Buffer.from(wanted.data))).toBe(0);
        }
    }
  });

  test('only tiles that a patch meets are named, by content', () => {
    const rect = { x: 10, y: 20, width: 30, height: 30 };
    const patch = (value: number) =>
      sealPatch(
        rect,
        { width: 30, height: 30, channels: 1, data: new Uint8Array(900).fill(value) },
        new Uint8Array(900).fill(1),
      );
    const a = touchedTiles(size, [patch(1)]);
    expect(Object.keys(a)).toEqual(['0/0/0', '1/0/0', '2/0/0', '3/0/0']);
    expect(touchedTiles(size, [patch(2)])['0/0/0']).not.toBe(a['0/0/0']);
    expect(touchedTiles(size, [patch(1)])).toEqual(a);
  });
});
