import type { Rect } from '../raster/rect.js';

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
}

const HEADER = 4;

/** A donor map as bytes, little-endian 16-bit words after four 32-bit words of geometry. */
export function packDonorMap(map: DonorMap): Uint8Array {
  const n = map.dx.length;
  const bytes = new Uint8Array(HEADER * 4 + n * 4);
  const view = new DataView(bytes.buffer);
  [map.rect.x, map.rect.y, map.rect.width, map.rect.height].forEach((v, i) =>
    view.setInt32(4 * i, v, true),
  );
  for (let i = 0; i < n; i++) {
    view.setInt16(HEADER * 4 + 2 * i, map.dx[i]!, true);
    view.setInt16(HEADER * 4 + 2 * (n + i), map.dy[i]!, true);
  }
  return bytes;
}

/** Reads {@link packDonorMap}'s bytes. @throws RangeError when the length does not fit the geometry */
export function unpackDonorMap(bytes: Uint8Array): DonorMap {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < HEADER * 4) throw new RangeError('donor map is cut short');
  const [x, y, width, height] = [0, 4, 8, 12].map((at) => view.getInt32(at, true)) as [
    number,
    number,
    number,
    number,
  ];
  const n = width * height;
  if (bytes.length !== HEADER * 4 + n * 4) throw new RangeError('donor map is cut short');
  const dx = new Int16Array(n);
  const dy = new Int16Array(n);
  for (let i = 0; i < n; i++) {
    dx[i] = view.getInt16(HEADER * 4 + 2 * i, true);
    dy[i] = view.getInt16(HEADER * 4 + 2 * (n + i), true);
  }
  return { rect: { x, y, width, height }, dx, dy };
}

const BLOCK = 64;

/**
 * Rectangles that together hold every source pixel of the map and its four neighbours: the donors' part of
 * the read region. Blocks of 64 px, one rectangle a run of blocks in a row.
 */
export function sourceRects(map: DonorMap, frame: Rect): Rect[] {
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
        x: frame.x + from * BLOCK - 1,
        y: frame.y + r * BLOCK - 1,
        width: (c - from + 1) * BLOCK + 2,
        height: BLOCK + 2,
      });
    }
  }
  return rects;
}
