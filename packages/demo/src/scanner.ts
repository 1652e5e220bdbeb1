import type { Raster } from '@tersum/core';
import {
  createRaster,
  frameOf,
  homographyOf,
  inverseOf,
  resampleBy,
  seededRandom,
  through,
} from '@tersum/core';

/** What the simulated scanner is asked for. */
export interface ScanOrder {
  readonly ppi: number;
  readonly colour: boolean;
  readonly bits: 8 | 16;
  readonly glass: 'clean' | 'dirty';
  readonly seed: number;
}

type Random = ReturnType<typeof seededRandom>;

/** The print's own sharpness: nothing finer is on the paper. */
export const PRINT_PPI = 600;
/** Share of the print's longer side that is left round it on the bed. */
const BED = 0.03;
/** Encoded levels to which black and white have faded, a channel. */
const FADED = [
  [66, 226],
  [56, 212],
  [44, 178],
] as const;

/**
 * A made-up print as a scanner would deliver it: a little askew on the bed, faded and yellowed, creased, scratched, with
 * the dust of the glass and the noise of the sensor. Simulated; the print itself is rendered.
 * @param print as it was when new, at {@link PRINT_PPI}
 */
export function scanned(print: Raster, { ppi, colour, bits, glass, seed }: ScanOrder): Raster {
  const random = seededRandom(seed);
  const scale = ppi / PRINT_PPI;
  const [w, h] = [print.width * scale, print.height * scale];
  const margin = BED * Math.max(w, h);
  const [width, height] = [Math.round(w + 2 * margin), Math.round(h + 2 * margin)];
  const place = askew(w, h, width, height, random.between(-140, 140) / 10000);
  const back = inverseOf(homographyOf(cornersOf(print), place));
  const seen = resampleBy(
    print,
    frameOf(print),
    (x, y, to) => {
      const [u, v] = through(back, [x, y]);
      to[0] = u;
      to[1] = v;
    },
    Math.max(1, 1 / scale),
    { x: 0, y: 0, width, height },
    frameOf(print),
  );
  const sheet = floats(seen.raster, seen.valid, colour);
  damage(sheet, place, ppi, random);
  if (glass === 'dirty') dust(sheet, ppi, random);
  return exposed(sheet, bits, random);
}

/** Floats 0..255, three or one a pixel; 1 where the print lies. */
interface Sheet {
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3;
  readonly values: Float32Array;
  readonly print: Uint8Array;
}

type Place = readonly (readonly [number, number])[];

function cornersOf({ width, height }: Raster): Place {
  return [
    [0, 0],
    [width - 1, 0],
    [width - 1, height - 1],
    [0, height - 1],
  ];
}

function askew(w: number, h: number, width: number, height: number, angle: number): Place {
  const [s, c] = [Math.sin(angle), Math.cos(angle)];
  return [
    [-w / 2, -h / 2],
    [w / 2, -h / 2],
    [w / 2, h / 2],
    [-w / 2, h / 2],
  ].map(([x, y]) => [width / 2 + x! * c - y! * s, height / 2 + x! * s + y! * c] as const);
}

/** The print faded, on the pale lid behind it. */
function floats(
  { width, height, channels, data }: Raster,
  print: Uint8Array,
  colour: boolean,
): Sheet {
  const n = colour ? 3 : 1;
  const values = new Float32Array(width * height * n);
  for (let p = 0; p < print.length; p++) {
    const at = (c: number): number => data[p * channels + (channels >= 3 ? c : 0)]!;
    const faded = FADED.map(([low, high], c) =>
      print[p] ? low + ((high - low) * at(c)) / 255 : [244, 243, 240][c]!,
    );
    if (n === 3) values.set(faded, 3 * p);
    else values[p] = 0.299 * faded[0]! + 0.587 * faded[1]! + 0.114 * faded[2]!;
  }
  return { width, height, channels: n, values, print };
}

/** A crease across the print and some scratches; sizes in mm, so that they grow with the ppi. */
function damage(sheet: Sheet, place: Place, ppi: number, random: Random): void {
  const mm = ppi / 25.4;
  const on = (u: number, v: number): [number, number] => {
    const [a, b, , d] = place as [
      readonly [number, number],
      readonly [number, number],
      unknown,
      readonly [number, number],
    ];
    return [
      a[0] + u * (b[0] - a[0]) + v * (d[0] - a[0]),
      a[1] + u * (b[1] - a[1]) + v * (d[1] - a[1]),
    ];
  };
  const from = on(random.between(30, 40) / 100, 0);
  const to = on(random.between(55, 66) / 100, 1);
  stroke(sheet, from, to, 0.75 * mm, 0.5 * mm, [212, 204, 186], random, true);
  for (let k = 0; k < 3; k++) {
    const a = on(random.between(8, 92) / 100, random.between(8, 60) / 100);
    const b: [number, number] = [
      a[0] + random.between(-14, 14) * mm,
      a[1] + random.between(6, 22) * mm,
    ];
    stroke(sheet, a, b, 0.11 * mm, 0.12 * mm, [222, 216, 200], random, true);
  }
}

/** Specks on the glass, light and dark, and two hairs. */
function dust(sheet: Sheet, ppi: number, random: Random): void {
  const mm = ppi / 25.4;
  const { width, height } = sheet;
  for (let k = 0; k < 46; k++) {
    const at: [number, number] = [random.between(0, width - 1), random.between(0, height - 1)];
    const size = (random.between(8, 30) / 100) * mm;
    const tone = random.between(0, 3) ? [236, 232, 222] : [40, 38, 36];
    stroke(sheet, at, [at[0] + size * 0.6, at[1] + size * 0.3], size, 0, tone, random, false);
  }
  for (let k = 0; k < 2; k++) {
    let at: [number, number] = [random.between(0, width - 1), random.between(0, height - 1)];
    let way = random.between(0, 628) / 100;
    for (let step = 0; step < 14; step++) {
      way += random.between(-35, 35) / 100;
      const next: [number, number] = [at[0] + Math.cos(way) * mm, at[1] + Math.sin(way) * mm];
      stroke(sheet, at, next, 0.1 * mm, 0, [46, 42, 38], random, false);
      at = next;
    }
  }
}

/** A stroke with a ragged edge. @param wander px it strays from its straight course */
function stroke(
  sheet: Sheet,
  from: readonly [number, number],
  to: readonly [number, number],
  wide: number,
  wander: number,
  tone: readonly number[],
  random: Random,
  onPrint: boolean,
): void {
  const { width, height, channels, values, print } = sheet;
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
  const [ex, ey] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  let [stray, half] = [0, wide / 2];
  for (let t = 0; t <= length; t += 0.5) {
    stray += (random.between(-100, 100) / 100) * wander * 0.12 - stray * 0.02;
    half += ((random.between(-100, 100) / 100) * wide) / 12 + (wide / 2 - half) * 0.1;
    const [x, y] = [from[0] + t * ex - stray * ey, from[1] + t * ey + stray * ex];
    const reach = Math.ceil(Math.max(0.6, half)) + 1;
    for (let v = Math.max(0, Math.floor(y - reach)); v <= Math.min(height - 1, y + reach); v++)
      for (let u = Math.max(0, Math.floor(x - reach)); u <= Math.min(width - 1, x + reach); u++) {
        const p = v * width + u;
        if (onPrint && !print[p]) continue;
        const cover = Math.min(
          1,
          Math.max(0, Math.max(0.6, half) + 0.5 - Math.hypot(u - x, v - y)),
        );
        for (let c = 0; c < channels; c++) {
          const i = p * channels + c;
          const want = channels === 3 ? tone[c]! : (tone[0]! + tone[1]! + tone[2]!) / 3;
          values[i]! += cover * 0.94 * (want - values[i]!);
        }
      }
  }
}

function exposed({ width, height, channels, values }: Sheet, bits: 8 | 16, random: Random): Raster {
  const out = createRaster(width, height, channels, bits === 16 ? 'u16' : 'u8');
  const scale = bits === 16 ? 257 : 1;
  const white = 255 * scale;
  for (let i = 0; i < values.length; i++) {
    // Three even numbers add up to nearly a normal one.
    const noise =
      (random.between(-100, 100) + random.between(-100, 100) + random.between(-100, 100)) / 100;
    out.data[i] = Math.min(white, Math.max(0, Math.round((values[i]! + 1.1 * noise) * scale)));
  }
  return out;
}
