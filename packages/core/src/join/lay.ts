import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { PointMap } from '../raster/resample.js';
import { mapAlong } from './along.js';
import type { Sheet } from './bands.js';
import { sheetOf } from './bands.js';

/**
 * A frame laid on a piece of the canvas: where it is wanted sharply by the cubic kernel (Keys 1981, a = -1/2), elsewhere
 * linearly, since only coarse bands look there. Beyond the frame its last pixels go on.
 * @param frame floats 0..1 @param sharp not 0 where every detail counts, a value a pixel of the piece
 */
export function laid(frame: Raster, to: PointMap, piece: Rect, sharp: Float32Array): Sheet {
  const { width, height, channels: n, data } = frame;
  const sheet = sheetOf(piece.width, piece.height, n);
  const out = sheet.values;
  const row = width * n;
  const places = new Float64Array(2 * piece.width);
  const [right, bottom] = [width - 1, height - 1];
  for (let y = 0, p = 0, o = 0; y < piece.height; y++) {
    mapAlong(to, piece.x, piece.y + y, places);
    for (let x = 0; x < piece.width; x++, p++) {
      const [px, py] = [places[2 * x]!, places[2 * x + 1]!];
      const sx = px < 0 ? 0 : px > right ? right : px;
      const sy = py < 0 ? 0 : py > bottom ? bottom : py;
      const ix = sx | 0;
      const iy = sy | 0;
      const f = sx - ix;
      const g = 1 - f;
      const b = ix * n;
      const c = (ix < right ? ix + 1 : ix) * n;
      const r1 = iy * row;
      const r2 = iy < bottom ? r1 + row : r1;
      const v = sy - iy;
      const u = 1 - v;
      if (!sharp[p]) {
        for (let k = 0; k < n; k++, o++)
          out[o] =
            u * (g * data[r1 + b + k]! + f * data[r1 + c + k]!) +
            v * (g * data[r2 + b + k]! + f * data[r2 + c + k]!);
        continue;
      }
      const a = ix > 0 ? b - n : b;
      const d = ix < right - 1 ? c + n : c;
      const r0 = iy > 0 ? r1 - row : r1;
      const r3 = iy < bottom - 1 ? r2 + row : r2;
      const wa = -0.5 * f * g * g;
      const wb = (1.5 * f - 2.5) * f * f + 1;
      const wc = (1.5 * g - 2.5) * g * g + 1;
      const wd = -0.5 * g * f * f;
      const w0 = -0.5 * v * u * u;
      const w1 = (1.5 * v - 2.5) * v * v + 1;
      const w2 = (1.5 * u - 2.5) * u * u + 1;
      const w3 = -0.5 * u * v * v;
      for (let k = 0; k < n; k++, o++) {
        const [i, j, l, m] = [a + k, b + k, c + k, d + k];
        out[o] =
          w0 * (wa * data[r0 + i]! + wb * data[r0 + j]! + wc * data[r0 + l]! + wd * data[r0 + m]!) +
          w1 * (wa * data[r1 + i]! + wb * data[r1 + j]! + wc * data[r1 + l]! + wd * data[r1 + m]!) +
          w2 * (wa * data[r2 + i]! + wb * data[r2 + j]! + wc * data[r2 + l]! + wd * data[r2 + m]!) +
          w3 * (wa * data[r3 + i]! + wb * data[r3 + j]! + wc * data[r3 + l]! + wd * data[r3 + m]!);
      }
    }
  }
  return sheet;
}
