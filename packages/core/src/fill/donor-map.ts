import type { Rect } from '../raster/rect.js';
import { intersect } from '../raster/rect.js';
import type { Point } from '../shape/site.js';
import type { Sheet } from './atlas.js';

/** Marks a pixel of a donor map that is not filled. */
export const NOT_FILLED = -32768;

/**
 * What a fill decided: for every site pixel the shift to the one pixel it takes its content from.
 * Replaying needs nothing else of the search.
 */
export interface DonorMap {
  /** Where the map lies, in the original's coordinates. */
  readonly rect: Rect;
  /** Shift to the source, px, row by row; {@link NOT_FILLED} where the site has no pixel. */
  readonly dx: Int16Array;
  readonly dy: Int16Array;
  /** How well each pixel's patch agrees with its source, beside what the ring shows: 255 as well as there, 0 not at all. */
  readonly confidence: Uint8Array;
  /** Sheets that sources may lie in: each is the window, laid otherwise, one below the other (see the atlas). */
  readonly laid?: {
    readonly window: Rect;
    /** What the sheets are laid about, px of the window. */
    readonly middle: Point;
    readonly sheets: readonly Sheet[];
  };
  /** Parts that are filled one after the other, each seeing its own room alone; the whole at once where there are none. */
  readonly bands?: readonly FilledBand[];
}

/** A part of a map that is filled by itself; both lie in the original's coordinates. */
export interface FilledBand {
  readonly rect: Rect;
  /** What is looked at: all sources of the part lie in it. */
  readonly room: Rect;
}

/** First word of the format; maps kept by earlier versions begin with their rectangle and hold shifts only. */
const FORMAT = 0x324d5354;
/** First word of maps that end in bands. */
const BANDED = 0x334d5354;
const RECT = 16;
const SHEET_WORDS = 3;

/**
 * A donor map as bytes, little-endian: format, rectangle, the shifts in 16 bits each, a byte of confidence a pixel, then
 * the sheets or the bands if any.
 */
export function packDonorMap({ rect, dx, dy, confidence, laid, bands }: DonorMap): Uint8Array {
  const n = dx.length;
  const sheets = laid ? RECT + 8 * (2 + SHEET_WORDS * laid.sheets.length) : 0;
  const rest = bands ? 2 * RECT * bands.length : sheets;
  const bytes = new Uint8Array(4 + RECT + 5 * n + rest);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, bands ? BANDED : FORMAT, true);
  putRect(view, 4, rect);
  const at = 4 + RECT;
  for (let i = 0; i < n; i++) {
    view.setInt16(at + 2 * i, dx[i]!, true);
    view.setInt16(at + 2 * (n + i), dy[i]!, true);
  }
  bytes.set(confidence, at + 4 * n);
  const end = at + 5 * n;
  bands?.forEach(({ rect: own, room }, k) => {
    putRect(view, end + 2 * RECT * k, own);
    putRect(view, end + 2 * RECT * k + RECT, room);
  });
  if (!laid) return bytes;
  putRect(view, end, laid.window);
  const numbers = laid.sheets.flatMap((s) => [s.turn, s.mirrored ? 1 : 0, s.scale]);
  [...laid.middle, ...numbers].forEach((v, k) => view.setFloat64(end + RECT + 8 * k, v, true));
  return bytes;
}

/** Reads {@link packDonorMap}'s bytes. @throws RangeError when the length does not fit the geometry */
export function unpackDonorMap(bytes: Uint8Array): DonorMap {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const cutShort = (): never => {
    throw new RangeError('donor map is cut short');
  };
  if (bytes.length < RECT) cutShort();
  const first = view.getUint32(0, true);
  const old = first !== FORMAT && first !== BANDED;
  const at = old ? RECT : 4 + RECT;
  if (bytes.length < at) cutShort();
  const rect = takeRect(view, old ? 0 : 4);
  const n = rect.width * rect.height;
  const end = at + (old ? 4 : 5) * n;
  const rest = bytes.length - end;
  const words = (rest - RECT) / 8 - 2;
  if (rest < 0 || (first === BANDED && rest % (2 * RECT))) cutShort();
  if (first !== BANDED && rest !== 0 && (old || words < SHEET_WORDS || words % SHEET_WORDS))
    cutShort();
  const dx = new Int16Array(n);
  const dy = new Int16Array(n);
  for (let i = 0; i < n; i++) {
    dx[i] = view.getInt16(at + 2 * i, true);
    dy[i] = view.getInt16(at + 2 * (n + i), true);
  }
  const confidence = old ? new Uint8Array(n).fill(255) : bytes.slice(at + 4 * n, end);
  if (first === BANDED) {
    const bands = Array.from({ length: rest / (2 * RECT) }, (_, k) => ({
      rect: takeRect(view, end + 2 * RECT * k),
      room: takeRect(view, end + 2 * RECT * k + RECT),
    }));
    return { rect, dx, dy, confidence, bands };
  }
  if (rest === 0) return { rect, dx, dy, confidence };
  const number = (k: number): number => view.getFloat64(end + RECT + 8 * k, true);
  const sheets = Array.from({ length: words / SHEET_WORDS }, (_, k) => ({
    turn: number(2 + SHEET_WORDS * k),
    mirrored: number(3 + SHEET_WORDS * k) === 1,
    scale: number(4 + SHEET_WORDS * k),
  }));
  const laid = { window: takeRect(view, end), middle: [number(0), number(1)] as const, sheets };
  return { rect, dx, dy, confidence, laid };
}

function putRect(view: DataView, at: number, { x, y, width, height }: Rect): void {
  [x, y, width, height].forEach((v, i) => view.setInt32(at + 4 * i, v, true));
}

function takeRect(view: DataView, at: number): Rect {
  const word = (i: number): number => view.getInt32(at + 4 * i, true);
  return { x: word(0), y: word(1), width: word(2), height: word(3) };
}

const BLOCK = 64;
/** px beside a source that are compared with what lies beside the copy. */
const BESIDE = 2;

/**
 * Rectangles that together hold every source pixel of the map and those up to two beside it: the donors' part of
 * the read region. Blocks of 64 px, one rectangle a run of blocks in a row.
 */
export function sourceRects(map: DonorMap, frame: Rect): Rect[] {
  if (map.laid) return [intersect(map.laid.window, frame)];
  if (map.bands) return map.bands.map(({ room }) => intersect(room, frame));
  const columns = Math.ceil(frame.width / BLOCK);
  const rows = Math.ceil(frame.height / BLOCK);
  const touched = new Uint8Array(columns * rows);
  const { rect, dx, dy } = map;
  for (let y = 0, i = 0; y < rect.height; y++) {
    for (let x = 0; x < rect.width; x++, i++) {
      if (dx[i] === NOT_FILLED) continue;
      const sx = rect.x + x + dx[i]! - frame.x;
      const sy = rect.y + y + dy[i]! - frame.y;
      touched[Math.floor(sy / BLOCK) * columns + Math.floor(sx / BLOCK)] = 1;
    }
  }
  const rects: Rect[] = [];
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      if (!touched[r * columns + c]) continue;
      const from = c;
      while (c + 1 < columns && touched[r * columns + c + 1]) c++;
      rects.push({
        x: frame.x + from * BLOCK - BESIDE,
        y: frame.y + r * BLOCK - BESIDE,
        width: (c - from + 1) * BLOCK + 2 * BESIDE,
        height: BLOCK + 2 * BESIDE,
      });
    }
  }
  return rects;
}
