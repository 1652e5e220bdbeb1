import type { Depth, Raster } from '../raster/raster.js';
import { createRaster, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { Sheet } from './bands.js';
import { Bands, sheetOf } from './bands.js';
import { laid } from './lay.js';
import { NOBODY } from './seams.js';
import type { Surface } from './surface.js';

const LEVELS = 5;
const EDGE = 1 << LEVELS;
/**
 * The frames put together, each counting where it is the owner, by bands.
 * @param frames floats 0..1 @param depth of the result
 */
export function blended(
  frames: readonly (Raster | null)[],
  owners: Uint8Array,
  { width, height, toFrame }: Surface,
  depth: Depth,
  task?: Task,
): Raster {
  const channels = frames.find((f) => f !== null)!.channels;
  const [w, h] = [width, height].map((v) => Math.ceil(v / EDGE) * EDGE) as [number, number];
  const bands = new Bands(w, h, channels, LEVELS);
  frames.forEach((frame, k) => {
    checkpoint(task, (0.8 * k) / frames.length);
    const to = toFrame[k];
    const own = boxOf(owners, width, height, k);
    if (!frame || !to || !own) return;
    const piece = pieceRound(own, w, h);
    const weight = weightOf(owners, width, height, k, piece);
    bands.add({ x: piece.x, y: piece.y, sheet: laid(frame, to, piece, weight.values), weight });
  });
  checkpoint(task, 0.85);
  const merged = bands.merged().values;
  const picture = createRaster(width, height, channels, depth);
  const white = whiteOf(picture.data);
  const half = white > 1 ? 0.5 : 0;
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (owners[p] === NOBODY) continue;
      for (let c = 0; c < channels; c++) {
        const v = merged[(y * w + x) * channels + c]! * white + half;
        picture.data[p * channels + c] = v < 0 ? 0 : v > white ? white : v;
      }
    }
  return picture;
}

function boxOf(owners: Uint8Array, width: number, height: number, owner: number): Rect | null {
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (owners[p] !== owner) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  return right < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

/** The box with room for the coarsest band, its sides whole steps of it. */
function pieceRound(box: Rect, width: number, height: number): Rect {
  const room = 2 * EDGE;
  const x = Math.max(0, Math.floor((box.x - room) / EDGE) * EDGE);
  const y = Math.max(0, Math.floor((box.y - room) / EDGE) * EDGE);
  const right = Math.min(width, Math.ceil((box.x + box.width + room) / EDGE) * EDGE);
  const bottom = Math.min(height, Math.ceil((box.y + box.height + room) / EDGE) * EDGE);
  return { x, y, width: right - x, height: bottom - y };
}

function weightOf(
  owners: Uint8Array,
  width: number,
  height: number,
  owner: number,
  piece: Rect,
): Sheet {
  const sheet = sheetOf(piece.width, piece.height, 1);
  for (let y = 0; y < Math.min(piece.height, height - piece.y); y++)
    for (let x = 0; x < Math.min(piece.width, width - piece.x); x++)
      if (owners[(piece.y + y) * width + piece.x + x] === owner)
        sheet.values[y * piece.width + x] = 1;
  return sheet;
}
