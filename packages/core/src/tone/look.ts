import type { ToneActOf } from './step.js';

/** A colour table: what every colour of a cube becomes, red fastest, then green, then blue; RGB, 0..1. */
export interface ColourCube {
  /** Colours along an edge. */
  readonly size: number;
  readonly values: Float32Array;
}

/** Colours along an edge of the cubes that are kept. */
export const CUBE = 17;
/** Colours along an edge of the largest picture that is taken in: 512 x 512 px. */
const LARGEST = 64;

/**
 * The cube in a lookup-table picture: its pixels in reading order are a cube's colours, red fastest, then green, then blue.
 * @param rgb three values a pixel, 0..1
 * @returns null when the number of pixels is no cube
 */
export function cubeOf(rgb: Float32Array): ColourCube | null {
  const size = Math.round(Math.cbrt(rgb.length / 3));
  return size >= 2 && size <= LARGEST && size ** 3 * 3 === rgb.length
    ? { size, values: rgb }
    : null;
}

/** A cube that changes nothing. */
export function neutralCube(size: number): ColourCube {
  const values = new Float32Array(3 * size ** 3);
  for (let k = 0; k < size ** 3; k++) {
    values[3 * k] = (k % size) / (size - 1);
    values[3 * k + 1] = (Math.floor(k / size) % size) / (size - 1);
    values[3 * k + 2] = Math.floor(k / size ** 2) / (size - 1);
  }
  return { size, values };
}

/** A cube of another size, by linear interpolation. */
export function resized(cube: ColourCube, size: number): ColourCube {
  const { values } = neutralCube(size);
  throughCube(values, cube);
  return { size, values };
}

/** Passes colours through a cube, in place; between its colours they are interpolated linearly. @param data RGB, 0..1 */
export function throughCube(data: Float32Array, { size, values }: ColourCube): void {
  const last = size - 1;
  const [green, blue] = [3 * size, 3 * size * size];
  for (let i = 0; i < data.length; i += 3) {
    const r = scaled(data[i]!, last);
    const g = scaled(data[i + 1]!, last);
    const b = scaled(data[i + 2]!, last);
    const [r0, g0, b0] = [floorOf(r, last), floorOf(g, last), floorOf(b, last)];
    const [fr, fg, fb] = [r - r0, g - g0, b - b0];
    const at = 3 * r0 + green * g0 + blue * b0;
    for (let c = 0; c < 3; c++) {
      const p = at + c;
      const low = mix(
        mix(values[p]!, values[p + 3]!, fr),
        mix(values[p + green]!, values[p + green + 3]!, fr),
        fg,
      );
      const q = p + blue;
      const high = mix(
        mix(values[q]!, values[q + 3]!, fr),
        mix(values[q + green]!, values[q + green + 3]!, fr),
        fg,
      );
      data[i + c] = mix(low, high, fb);
    }
  }
}

/** A cube as text, 16 bits a value; {@link cubeFrom} reads it. */
export function cubeText({ values }: ColourCube): string {
  let text = '';
  for (const v of values)
    text += Math.round(65535 * Math.min(1, Math.max(0, v)))
      .toString(36)
      .padStart(4, '0');
  return text;
}

export function cubeFrom({ size, table }: Pick<ToneActOf<'look'>, 'size' | 'table'>): ColourCube {
  const values = new Float32Array(3 * size ** 3);
  for (let k = 0; k < values.length; k++)
    values[k] = parseInt(table.slice(4 * k, 4 * k + 4), 36) / 65535;
  return { size, values };
}

const read = new WeakMap<ToneActOf<'look'>, ColourCube>();

/** A colour look, in place. @param data RGB, 0..1 */
export function look(data: Float32Array, act: ToneActOf<'look'>): void {
  let cube = read.get(act);
  if (!cube) read.set(act, (cube = cubeFrom(act)));
  throughCube(data, cube);
}

function scaled(v: number, last: number): number {
  return (v < 0 ? 0 : v > 1 ? 1 : v) * last;
}

function floorOf(v: number, last: number): number {
  return v >= last ? last - 1 : v | 0;
}

function mix(a: number, b: number, f: number): number {
  return a + (b - a) * f;
}
