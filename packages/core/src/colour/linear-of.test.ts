import { linearOf, toLinear } from './srgb.js';

test.each([255, 65535, 1])('samples up to %d are as linear as their shares of it', (white) => {
  const linear = linearOf(white);
  for (const share of [0, 0.02, 0.2, 0.4, 0.8, 1]) {
    const sample = white > 1 ? Math.round(share * white) : share;
    expect(linear(sample)).toBe(toLinear(sample / white));
  }
});
