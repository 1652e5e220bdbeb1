import type { View } from '@tersum/document';
import { paintPicture } from '../../bench/table/paint.js';
import type { TileStore } from '../../bench/table/tile-store.js';
import type { Size, Viewport } from '../../bench/table/viewport.js';
import type { ProofState } from '../model.js';

interface Sight {
  readonly tiles: TileStore;
  readonly picture: Size;
  readonly view: View | null;
  readonly viewport: Viewport;
  readonly table: Size;
  /** Where the split lies, share of the table's width. */
  readonly split: number;
}

/**
 * Draws the picture as received and as repaired in one of the ways of comparing; both always in register.
 * @returns whether everything drawn is what it should be
 */
export function paintCompared(
  ctx: CanvasRenderingContext2D,
  { tiles, picture, view, viewport, table, split }: Sight,
  { way, received, onion, doublings }: ProofState,
  ratio: number,
): boolean {
  const { width, height } = ctx.canvas;
  const layer = (state: 'received' | 'repaired', on = ctx, size = table): boolean =>
    paintPicture(
      on,
      tiles,
      picture,
      state === 'received' ? { kind: 'original' } : { kind: 'repaired', view },
      viewport,
      size,
      ratio,
    );
  switch (way) {
    case 'flip':
    case 'blink':
      return layer(received ? 'received' : 'repaired');
    case 'split': {
      const whole = layer('repaired');
      const part = clipped(ctx, 0, split * width, height, () => layer('received'));
      return whole && part;
    }
    case 'beside': {
      const half = { width: table.width / 2, height: table.height };
      const left = clipped(ctx, 0, width / 2 - ratio, height, () => layer('received', ctx, half));
      const right = clipped(ctx, width / 2 + ratio, width / 2, height, () => {
        ctx.translate(width / 2, 0);
        return layer('repaired', ctx, half);
      });
      return left && right;
    }
    case 'difference':
    case 'onion': {
      const below = layer('repaired');
      const over = new OffscreenCanvas(width, height).getContext('2d')!;
      over.drawImage(ctx.canvas, 0, 0);
      const above = layer('received', over as unknown as CanvasRenderingContext2D);
      ctx.globalCompositeOperation = way === 'onion' ? 'source-over' : 'difference';
      ctx.globalAlpha = way === 'onion' ? onion : 1;
      ctx.drawImage(over.canvas, 0, 0);
      ctx.globalAlpha = 1;
      ctx.globalCompositeOperation = 'lighter';
      for (let k = 0; k < (way === 'onion' ? 0 : doublings); k++) ctx.drawImage(ctx.canvas, 0, 0);
      ctx.globalCompositeOperation = 'source-over';
      return below && above;
    }
  }
}

function clipped(
  ctx: CanvasRenderingContext2D,
  x: number,
  width: number,
  height: number,
  paint: () => boolean,
): boolean {
  ctx.save();
  ctx.beginPath();
  ctx.rect(x, 0, width, height);
  ctx.clip();
  const complete = paint();
  ctx.restore();
  return complete;
}
