import type { Rect } from '@tersum/core';
import { digestText } from '@tersum/core';
import type { SweptFrame, View } from '@tersum/document';
import { TILE, tileName } from '@tersum/document';

/** Size of a frame at 1:1, px: small enough for the smallest window. */
export const FRAME = { width: 640, height: 480 } as const;

/** Frames of a picture on its canvas, in reading order; together they cover every pixel, none lies outside. */
export function framesOf(picture: Rect): Rect[] {
  const columns = Math.ceil(picture.width / FRAME.width);
  const rows = Math.ceil(picture.height / FRAME.height);
  return Array.from({ length: rows * columns }, (_, k) => {
    const [row, column] = [Math.floor(k / columns), k % columns];
    const x = Math.round((column * picture.width) / columns);
    const y = Math.round((row * picture.height) / rows);
    return {
      x: picture.x + x,
      y: picture.y + y,
      width: Math.round(((column + 1) * picture.width) / columns) - x,
      height: Math.round(((row + 1) * picture.height) / rows) - y,
    };
  });
}

/** Names what a frame shows: it changes when a repair that reaches into it does. */
export function contentOf({ x, y, width, height }: Rect, view: View): string {
  const keys: string[] = [];
  const [left, top] = [x - view.canvas.x, y - view.canvas.y];
  for (let row = Math.floor(top / TILE); row * TILE < top + height; row++)
    for (let column = Math.floor(left / TILE); column * TILE < left + width; column++)
      keys.push(view.tiles[tileName({ level: 0, column, row })] ?? view.base);
  return digestText(keys.join(' '));
}

export type FrameState = 'due' | 'again' | 'passed' | 'marked';

/** How every frame stands: looked at and passed, marked, still due, or due again because it changed. */
export function frameStates(
  frames: readonly Rect[],
  view: View,
  swept: readonly SweptFrame[],
): FrameState[] {
  const known = new Map(swept.map((s) => [s.frame, s]));
  return frames.map((frame, k) => {
    const seen = known.get(k);
    if (!seen) return 'due';
    return seen.content === contentOf(frame, view) ? seen.state : 'again';
  });
}

/** The next frame that is due after one, from the start again at the end; null when none is. */
export function nextDue(states: readonly FrameState[], after: number): number | null {
  for (let k = 1; k <= states.length; k++) {
    const at = (after + k) % states.length;
    if (states[at] === 'due' || states[at] === 'again') return at;
  }
  return null;
}
