import { labOfSrgb } from './lab.js';

/** Hue (degrees 0..360) and chroma of an encoded colour in CIELAB (ISO/CIE 11664-4). */
export function hueOf(red: number, green: number, blue: number): { hue: number; chroma: number } {
  const { a, b } = labOfSrgb(red, green, blue);
  const hue = (Math.atan2(b, a) * 180) / Math.PI;
  return { hue: hue < 0 ? hue + 360 : hue, chroma: Math.sqrt(a * a + b * b) };
}
