import type { Rect } from '../../raster/rect.js';

/** The pixel that a cell of a room's system stands for. @param wide px in a row of the picture */
export function pixelOf(cell: number, stride: number, room: Rect, wide: number): number {
  const row = Math.floor(cell / stride);
  return (room.y + row - 1) * wide + room.x + (cell - row * stride) - 1;
}
