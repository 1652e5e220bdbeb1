import { depthsOf } from './depth.js';
import { softenMask } from './soften.js';

function disc(): Uint8Array {
  const mask = new Uint8Array(41 * 41);
  for (let p = 0; p < mask.length; p++)
    if (((p % 41) - 20) ** 2 + (Math.floor(p / 41) - 20) ** 2 <= 225) mask[p] = 1;
  return mask;
}

describe('soft masks', () => {
  test('depth is the distance to the border within the chamfer’s error', () => {
    const depths = depthsOf(disc(), 41, 41);
    expect(depths[20 * 41 + 20]).toBeGreaterThan(14.5);
    expect(depths[20 * 41 + 20]).toBeLessThan(17);
    expect(depths[0]).toBe(0);
  });

  test('hard masks stay as they are, soft ones fall inwards only', () => {
    const mask = disc();
    expect([...softenMask(mask, 41, 41, 0)]).toEqual([...mask]);
    const soft = softenMask(mask, 41, 41, 1);
    soft.forEach((v, p) => expect(v > 0).toBe(mask[p] === 1));
    expect(soft[20 * 41 + 20]).toBeGreaterThan(0.98);
    expect(soft[20 * 41 + 6]).toBeLessThan(0.1);
  });
});
