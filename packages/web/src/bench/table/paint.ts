import type { Rect } from '@tersum/core';
import type { View } from '@tersum/document';
import { levelCount, levelSize, TILE, tileName } from '@tersum/document';
import type { Overlay } from '../model/state.js';
import type { TileStore } from './tile-store.js';
import type { Size, Viewport } from './viewport.js';
import { toPicture } from './viewport.js';

/** Which state of the picture is drawn; as received it lies on its own frame, else on the canvas of the view. */
export type State =
  { readonly kind: 'original' } | { readonly kind: 'repaired'; readonly view: View | null };

/**
 * Draws the part of the picture that a viewport shows, from the coarsest level that is sharp enough; places
 * whose tile is still coming show a coarser one.
 * @param ctx its transform is in device px; `ratio` device px make a CSS px
 * @returns whether everything drawn is what it should be, with nothing still coming
 */
export function paintPicture(
  ctx: CanvasRenderingContext2D,
  tiles: TileStore,
  picture: Size,
  state: State,
  view: Viewport,
  table: Size,
  ratio: number,
): boolean {
  const canvas = canvasOf(picture, state);
  const levels = levelCount(canvas);
  const wanted = Math.floor(Math.log2(1 / (view.zoom * ratio)) + 0.01);
  const level = Math.min(levels - 1, Math.max(0, wanted));
  ctx.save();
  layPicture(ctx, view, table, ratio);
  // The level is never more than twice too fine: plain smoothing is enough, and quick.
  ctx.imageSmoothingQuality = 'low';
  // Two layers are enough: the whole picture small, and what is wanted over it.
  if (level < levels - 1) paintLevel(ctx, tiles, canvas, state, levels - 1, null);
  const complete = paintLevel(ctx, tiles, canvas, state, level, visibleBox(view, table));
  ctx.restore();
  return complete;
}

function canvasOf({ width, height }: Size, state: State): Rect {
  const own = { x: 0, y: 0, width, height };
  return state.kind === 'original' ? own : (state.view?.canvas ?? own);
}

/** Draws a picture that lies over part of the table, by its own pixels. */
export function paintOverlay(
  ctx: CanvasRenderingContext2D,
  { x, y, factor, image }: Overlay,
  view: Viewport,
  table: Size,
  ratio: number,
): void {
  ctx.save();
  layPicture(ctx, view, table, ratio);
  if (factor > 1) ctx.imageSmoothingEnabled = true;
  ctx.drawImage(image, x, y, factor * image.width, factor * image.height);
  ctx.restore();
}

/** Brings the context into the picture's pixels. */
function layPicture(
  ctx: CanvasRenderingContext2D,
  view: Viewport,
  table: Size,
  ratio: number,
): void {
  const scale = view.zoom * ratio;
  ctx.translate((table.width / 2) * ratio, (table.height / 2) * ratio);
  ctx.rotate((-view.turn * Math.PI) / 180);
  ctx.scale(scale, scale);
  ctx.translate(-view.x - 0.5, -view.y - 0.5);
  ctx.imageSmoothingEnabled = scale < 2;
}

interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

function visibleBox(view: Viewport, table: Size): Box {
  const corners = [
    toPicture(view, table, [0, 0]),
    toPicture(view, table, [table.width, 0]),
    toPicture(view, table, [0, table.height]),
    toPicture(view, table, [table.width, table.height]),
  ];
  const xs = corners.map((c) => c[0]);
  const ys = corners.map((c) => c[1]);
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

function paintLevel(
  ctx: CanvasRenderingContext2D,
  tiles: TileStore,
  canvas: Rect,
  state: State,
  level: number,
  /** The part that is seen; null draws all of the level with what is at hand. */
  box: Box | null,
): boolean {
  let complete = true;
  const size = levelSize(canvas, level);
  const span = TILE * 2 ** level;
  const columns = Math.ceil(size.width / TILE);
  const rows = Math.ceil(size.height / TILE);
  const within = (v: number, most: number): number => Math.min(most, Math.max(0, Math.floor(v)));
  const c0 = box ? within((box.x0 - canvas.x) / span, columns - 1) : 0;
  const c1 = box ? within((box.x1 - canvas.x) / span, columns - 1) : columns - 1;
  const r0 = box ? within((box.y0 - canvas.y) / span, rows - 1) : 0;
  const r1 = box ? within((box.y1 - canvas.y) / span, rows - 1) : rows - 1;
  for (let row = r0; row <= r1; row++) {
    for (let column = c0; column <= c1; column++) {
      const place = tileName({ level, column, row });
      const view = state.kind === 'original' ? null : state.view;
      const { bitmap, fresh } = !box
        ? tiles.standIn(view, place)
        : state.kind === 'original'
          ? tiles.original(place)
          : tiles.repaired(view, place);
      complete &&= fresh;
      if (!bitmap) continue;
      const x = column * span;
      const y = row * span;
      // The last tile of a level may stand for half a pixel more than the picture has.
      const w = Math.min(bitmap.width * 2 ** level, canvas.width - x);
      const h = Math.min(bitmap.height * 2 ** level, canvas.height - y);
      ctx.drawImage(bitmap, 0, 0, w / 2 ** level, h / 2 ** level, canvas.x + x, canvas.y + y, w, h);
    }
  }
  return complete;
}
