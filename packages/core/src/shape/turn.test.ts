import { turnOf } from './turn.js';

describe('turns', () => {
  test('multiples of 90 degrees are exact', () => {
    expect([0, 90, 180, 270, 360, -90].map((d) => turnOf(d).cos)).toEqual([1, 0, -1, 0, 1, 0]);
    expect([0, 90, 180, 270, 360, -90].map((d) => turnOf(d).sin)).toEqual([0, 1, 0, -1, 0, -1]);
  });

  test('elsewhere they agree with the engine’s own sine and cosine to 1e-14', () => {
    for (let d = -400; d <= 400; d += 3.7) {
      expect(Math.abs(turnOf(d).cos - Math.cos((d * Math.PI) / 180))).toBeLessThan(1e-14);
      expect(Math.abs(turnOf(d).sin - Math.sin((d * Math.PI) / 180))).toBeLessThan(1e-14);
    }
  });
});
