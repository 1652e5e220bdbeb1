import { describe, expect, test } from '@jest/globals';
import type { Raster } from '../raster/raster.js';
import { settleBetween } from './settle.js';

const W = 60;
const box = { x: 28, y: 28, width: 5, height: 5 };
const plain = { turn: 0, mirrorX: false, mirrorY: false, scale: 1 };

/** Waves of 9 px across and 11 px down, the right half of the picture moved on by parts of a pixel. */
function waves(byX: number, byY: number): Raster {
  const data = new Uint16Array(W * W);
  for (let y = 0, p = 0; y < W; y++)
    for (let x = 0; x < W; x++, p++) {
      const [u, v] = x < 40 ? [x, y] : [x - byX, y - byY];
      data[p] =
        32768 + 12000 * Math.sin((2 * Math.PI * u) / 9) + 12000 * Math.sin((2 * Math.PI * v) / 11);
    }
  return { width: W, height: W, channels: 1, data };
}

function siteAt(): { blocked: Uint8Array; pixels: Int32Array } {
  const blocked = new Uint8Array(W * W);
  for (let y = box.y; y < box.y + box.height; y++)
    blocked.fill(1, y * W + box.x, y * W + box.x + box.width);
  const pixels: number[] = [];
  blocked.forEach((v, p) => v && pixels.push(p));
  return { blocked, pixels: Int32Array.from(pixels) };
}

describe('settling a shift between pixels', () => {
  const offer = { dx: 18, dy: 0, misfit: 900, ...plain };
  const settle = (picture: Raster, given: typeof offer): typeof offer => {
    const { blocked, pixels } = siteAt();
    return settleBetween(picture, blocked, { pixels, box }, given) as typeof offer;
  };

  test.each([
    [0.25, 0.5],
    [-0.5, 0.25],
    [0.5, 0],
    [0, -0.25],
  ])('finds a picture moved on by %d, %d px', (byX, byY) => {
    const found = settle(waves(byX, byY), offer);
    expect([found.dx - 18, found.dy]).toEqual([byX, byY]);
    expect(found.misfit).toBeLessThan(offer.misfit / 10);
  });

  test('leaves what is in register as it is', () => {
    expect(settle(waves(0, 0), offer)).toEqual(offer);
  });

  test('leaves what fits well, and what is interpolated anyhow', () => {
    const moved = waves(0.5, 0.5);
    for (const given of [
      { ...offer, misfit: 20 },
      { ...offer, turn: 3 },
    ])
      expect(settle(moved, given)).toEqual(given);
  });

  // The donor stands at the right border: part of what lies beside it is outside the picture.
  test('asks only what lies in the picture', () => {
    const found = settle(waves(0.25, 0), { ...offer, dx: 27, dy: 22 });
    expect([found.dx, found.dy]).toEqual([27.25, 22]);
  });
});
