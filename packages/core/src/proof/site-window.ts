import { labOfLinear } from '../colour/lab.js';
import { LINEAR_OF_CODE, toLinear } from '../colour/srgb.js';
import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { depthsOf } from '../shape/depth.js';

/** A site with its surroundings, in px of its window. */
export interface SiteWindow {
  readonly rect: Rect;
  /** 1 = changed by this site. */
  readonly mask: Uint8Array;
  /** 1 = changed by any site. */
  readonly changed: Uint8Array;
  readonly luma: Plane;
  /** CIELAB; of a site that is not small only near its border, 0 elsewhere. */
  readonly lab: readonly [Plane, Plane, Plane];
  /** Places on the site's border and which way is out. */
  readonly rim: readonly RimPoint[];
}

export interface RimPoint {
  readonly x: number;
  readonly y: number;
  /** Unit vector outward. */
  readonly nx: number;
  readonly ny: number;
}

/** px round a site that are looked at. */
export const ROUND = 28;

/** @param pixels of the site in the picture @param changed 1 = changed by any site, a value a pixel of the picture */
export function siteWindow(picture: Raster, pixels: Int32Array, changed: Uint8Array): SiteWindow {
  const box = boxOf(pixels, picture.width);
  const rect = intersect(grow(box, ROUND), frameOf(picture));
  const { width, height } = rect;
  const mask = new Uint8Array(width * height);
  for (const p of pixels)
    mask[(Math.floor(p / picture.width) - rect.y) * width + (p % picture.width) - rect.x] = 1;
  const all = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    all.set(
      changed.subarray(
        (rect.y + y) * picture.width + rect.x,
        (rect.y + y) * picture.width + rect.x + width,
      ),
      y * width,
    );
  const depths = {
    inside: depthsOf(mask, width, height),
    outside: depthsOf(
      mask.map((m) => 1 - m),
      width,
      height,
    ),
  };
  const rim = rimOf(mask, rect, picture, depths);
  const { luma, lab } = coloursOf(picture, rect, rim.length < SMALL_RIM ? null : depths);
  return { rect, mask, changed: all, luma, lab, rim };
}

/** How far each pixel of a window lies in the site, and out of it, px. */
interface Depths {
  readonly inside: Float32Array;
  readonly outside: Float32Array;
}

/** Borders of fewer places are as small as texture itself: they are compared with what lies beside them. */
export const SMALL_RIM = 64;
/** px from a longer border within which colour is asked for. */
const COLOURED = 9;

export function boxOf(pixels: Int32Array, width: number): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -1, -1];
  for (const p of pixels) {
    const x = p % width;
    const y = Math.floor(p / width);
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
  }
  return { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

function coloursOf(
  picture: Raster,
  rect: Rect,
  depths: Depths | null,
): { luma: Plane; lab: [Plane, Plane, Plane] } {
  const { width, height } = rect;
  const plane = (): Plane => ({ width, height, values: new Float32Array(width * height) });
  const [luma, L, a, b] = [plane(), plane(), plane(), plane()];
  const white = whiteOf(picture.data);
  const colour = colourChannels(picture.channels) === 3;
  const linear = (code: number): number =>
    white === 255 ? LINEAR_OF_CODE[code]! : toLinear(code / white);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const i = ((rect.y + y) * picture.width + rect.x + x) * picture.channels;
      const red = picture.data[i]!;
      const green = colour ? picture.data[i + 1]! : red;
      const blue = colour ? picture.data[i + 2]! : red;
      luma.values[p] = (255 / white) * (0.299 * red + 0.587 * green + 0.114 * blue);
      if (depths && Math.max(depths.inside[p]!, depths.outside[p]!) > COLOURED) continue;
      const lab = labOfLinear(linear(red), linear(green), linear(blue));
      L.values[p] = lab.L;
      a.values[p] = lab.a;
      b.values[p] = lab.b;
    }
  return { luma, lab: [L, a, b] };
}

/** Border pixels of the mask, those on the picture's own border left out; outward by the slope of the distance to it. */
function rimOf(
  mask: Uint8Array,
  rect: Rect,
  picture: Raster,
  { inside, outside }: Depths,
): RimPoint[] {
  const { width, height } = rect;
  const signed = (x: number, y: number): number => {
    const cx = x < 0 ? 0 : x >= width ? width - 1 : x;
    const cy = y < 0 ? 0 : y >= height ? height - 1 : y;
    const p = cy * width + cx;
    return mask[p] ? -Math.min(8, inside[p]!) : Math.min(8, outside[p]!);
  };
  const rim: RimPoint[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      if (!mask[p]) continue;
      const [px, py] = [rect.x + x, rect.y + y];
      if (px < 2 || py < 2 || px >= picture.width - 2 || py >= picture.height - 2) continue;
      if (mask[p - 1] && mask[p + 1] && mask[p - width] && mask[p + width]) continue;
      let [gx, gy] = [0, 0];
      for (let k = -2; k <= 2; k++)
        for (let j = 1; j <= 3; j++) {
          gx += signed(x + j, y + k) - signed(x - j, y + k);
          gy += signed(x + k, y + j) - signed(x + k, y - j);
        }
      const length = Math.sqrt(gx * gx + gy * gy);
      if (length < 4) continue;
      const [nx, ny] = [gx / length, gy / length];
      // The border itself lies half a pixel outside the last pixel in.
      rim.push({ x: x + 0.5 * nx, y: y + 0.5 * ny, nx, ny });
    }
  return rim;
}
