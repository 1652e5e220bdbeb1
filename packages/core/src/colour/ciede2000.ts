import type { Lab } from './lab.js';

const DEGREE = Math.PI / 180;

/**
 * Colour difference CIEDE2000 (ISO/CIE 11664-6) with kL = kC = kH = 1, in the formulation of
 * Sharma, Wu, Dalal, "The CIEDE2000 Color-Difference Formula", Color Res. Appl. 30(1), 2005.
 */
export function ciede2000(one: Lab, two: Lab): number {
  const c1 = Math.sqrt(one.a * one.a + one.b * one.b);
  const c2 = Math.sqrt(two.a * two.a + two.b * two.b);
  const g = 0.5 * (1 - chromaWeight((c1 + c2) / 2));
  const a1 = (1 + g) * one.a;
  const a2 = (1 + g) * two.a;
  const C1 = Math.sqrt(a1 * a1 + one.b * one.b);
  const C2 = Math.sqrt(a2 * a2 + two.b * two.b);
  const h1 = hue(a1, one.b);
  const h2 = hue(a2, two.b);
  const grey = C1 * C2 === 0;

  const dL = two.L - one.L;
  const dC = C2 - C1;
  const dh = grey ? 0 : shortest(h2 - h1);
  const dH = 2 * Math.sqrt(C1 * C2) * Math.sin((dh / 2) * DEGREE);

  const L = (one.L + two.L) / 2;
  const C = (C1 + C2) / 2;
  const h = grey ? h1 + h2 : meanHue(h1, h2);
  const T =
    1 -
    0.17 * Math.cos((h - 30) * DEGREE) +
    0.24 * Math.cos(2 * h * DEGREE) +
    0.32 * Math.cos((3 * h + 6) * DEGREE) -
    0.2 * Math.cos((4 * h - 63) * DEGREE);
  const turn = 30 * Math.exp(-(((h - 275) / 25) ** 2));
  const RT = -2 * chromaWeight(C) * Math.sin(2 * turn * DEGREE);
  const l50 = (L - 50) ** 2;
  const sL = dL / (1 + (0.015 * l50) / Math.sqrt(20 + l50));
  const sC = dC / (1 + 0.045 * C);
  const sH = dH / (1 + 0.015 * C * T);
  return Math.sqrt(sL * sL + sC * sC + sH * sH + RT * sC * sH);
}

function chromaWeight(c: number): number {
  const c7 = c ** 7;
  return Math.sqrt(c7 / (c7 + 6103515625));
}

function hue(a: number, b: number): number {
  if (a === 0 && b === 0) return 0;
  const h = Math.atan2(b, a) / DEGREE;
  return h < 0 ? h + 360 : h;
}

function shortest(dh: number): number {
  if (dh > 180) return dh - 360;
  return dh < -180 ? dh + 360 : dh;
}

function meanHue(h1: number, h2: number): number {
  if (Math.abs(h1 - h2) <= 180) return (h1 + h2) / 2;
  return h1 + h2 < 360 ? (h1 + h2 + 360) / 2 : (h1 + h2 - 360) / 2;
}
