import { toEncoded, toLinear } from '../colour/srgb.js';
import type { ToneActOf } from './step.js';

/** Luma of ITU-R BT.709, on encoded values. */
const LUMA = [0.2126, 0.7152, 0.0722] as const;

/** Colours nearer to or further from their grey, in place; RGB, 0..1. */
export function saturate(data: Float32Array, { amount }: ToneActOf<'saturation'>): void {
  const k = 1 + amount;
  for (let i = 0; i < data.length; i += 3) {
    const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
    const grey = LUMA[0] * r + LUMA[1] * g + LUMA[2] * b;
    data[i] = clamp(grey + (r - grey) * k);
    data[i + 1] = clamp(grey + (g - grey) * k);
    data[i + 2] = clamp(grey + (b - grey) * k);
  }
}

/** Grey from shares of the channels, in place; shares need not add up to 1. */
export function greyFrom(data: Float32Array, { weights }: ToneActOf<'grey'>): void {
  for (let i = 0; i < data.length; i += 3) {
    const v = clamp(weights[0] * data[i]! + weights[1] * data[i + 1]! + weights[2] * data[i + 2]!);
    data[i] = v;
    data[i + 1] = v;
    data[i + 2] = v;
  }
}

/** Entries of the table of tones by lightness. */
const TONES = 4096;

/**
 * One hue for all tones, in place: lightness (CIELAB L*) stays, chroma is full in the middle and falls to nothing at
 * black and white, so the colours lie on one hue line of ISO/CIE 11664-4.
 */
export function tone(data: Float32Array, { hue, chroma }: ToneActOf<'toning'>): void {
  const table = toneTable(hue, chroma);
  for (let i = 0; i < data.length; i += 3) {
    const light =
      0.2126729 * linear(data[i]!) +
      0.7151522 * linear(data[i + 1]!) +
      0.072175 * linear(data[i + 2]!);
    const t = lightness(light) * (TONES / 100);
    const k = Math.min(TONES - 1, t | 0);
    const f = t - k;
    for (let c = 0; c < 3; c++) {
      const at = 3 * k + c;
      data[i + c] = table[at]! + (table[at + 3]! - table[at]!) * f;
    }
  }
}

/** The colour of a lightness 0..100 on a hue line; encoded sRGB. */
export function tonedColour(L: number, hue: number, chroma: number): [number, number, number] {
  // The most chroma that the display can show at this lightness, tried from the wish downward.
  const wish = (chroma * 4 * L * (100 - L)) / 10000;
  const [a, b] = [Math.cos((hue * Math.PI) / 180), Math.sin((hue * Math.PI) / 180)];
  let [low, high] = [0, wish];
  if (shown(srgbOf(L, a * wish, b * wish))) low = wish;
  else
    for (let k = 0; k < 24; k++) {
      const mid = (low + high) / 2;
      if (shown(srgbOf(L, a * mid, b * mid))) low = mid;
      else high = mid;
    }
  return srgbOf(L, a * low, b * low).map((v) => clamp(toEncoded(clamp(v)))) as [
    number,
    number,
    number,
  ];
}

function toneTable(hue: number, chroma: number): Float32Array {
  const table = new Float32Array((TONES + 1) * 3);
  for (let k = 0; k <= TONES; k++) table.set(tonedColour((100 * k) / TONES, hue, chroma), 3 * k);
  return table;
}

/** Linear sRGB of CIELAB under D65; may lie outside 0..1. */
function srgbOf(L: number, a: number, b: number): [number, number, number] {
  const fy = (L + 16) / 116;
  const x = 0.95047 * unresponse(fy + a / 500);
  const y = unresponse(fy);
  const z = 1.08883 * unresponse(fy - b / 200);
  return [
    3.2404542 * x - 1.5371385 * y - 0.4985314 * z,
    -0.969266 * x + 1.8760108 * y + 0.041556 * z,
    0.0556434 * x - 0.2040259 * y + 1.0572252 * z,
  ];
}

function unresponse(f: number): number {
  return f > 6 / 29 ? f * f * f : ((116 * f - 16) * 27) / 24389;
}

function lightness(y: number): number {
  return y > 216 / 24389 ? 116 * Math.cbrt(y) - 16 : (24389 / 27) * y;
}

function shown(rgb: readonly number[]): boolean {
  return rgb.every((v) => v >= -1e-6 && v <= 1 + 1e-6);
}

const LINEAR = Float32Array.from({ length: 4097 }, (_, k) => toLinear(k / 4096));

function linear(v: number): number {
  const t = clamp(v) * 4096;
  const k = Math.min(4095, t | 0);
  return LINEAR[k]! + (LINEAR[k + 1]! - LINEAR[k]!) * (t - k);
}

function clamp(v: number): number {
  return v < 0 ? 0 : v > 1 ? 1 : v;
}
