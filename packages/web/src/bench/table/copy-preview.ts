import type { Point, Rect } from '@tersum/core';
import { pathOf } from '@tersum/core';
import { isCopy, isPlainShift } from '@tersum/document';
import type { Donor, Site } from '@tersum/document';
import { startOf } from '../model/bench.js';
import type { BenchState } from '../model/state.js';
import { shapeNow } from '../model/state.js';
import { paintPicture } from './paint.js';
import type { TileStore } from './tile-store.js';
import type { Size } from './viewport.js';
import { toPicture, toScreen } from './viewport.js';

/** Canvases grow by so much at a time, device px: making one larger costs more than drawing on it. */
const GROWS = 64;

/**
 * Shows what a clone or graft is about to copy: under the cursor, and along the stroke being drawn. Drawn from
 * the tiles on screen, on a canvas no larger than the site; a graft's tone follows when it is computed.
 * @param canvas lies over the table from its corner on; is moved to the site, and hidden where there is nothing to show
 * @param ratio so many device px make a CSS px
 * @returns whether nothing that belongs there is still coming
 */
export function paintCopyPreview(
  canvas: HTMLCanvasElement,
  tiles: TileStore,
  state: BenchState,
  ratio: number,
): boolean {
  const { viewport, table, records, view } = state;
  const copy = state.asReceived ? null : (slidingCopy(state) ?? drawnCopy(state));
  const ctx = canvas.getContext('2d');
  canvas.hidden = true;
  if (!ctx || !copy || !viewport || !records) return true;
  const path = pathOf(copy.site).map((point) => toScreen(viewport, table, point));
  const box = boundsOf(path, (copy.width / 2) * viewport.zoom + 2, table, ratio);
  if (!box.width || !box.height) return true;

  layOn(canvas, box, ratio);
  const room = { width: box.width / ratio, height: box.height / ratio };
  const corner = [box.x / ratio, box.y / ratio] as const;
  const [x, y] = toPicture(viewport, table, [
    corner[0] + room.width / 2,
    corner[1] + room.height / 2,
  ]);
  const from = { ...viewport, x: x + copy.shift.dx, y: y + copy.shift.dy };
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.globalCompositeOperation = 'source-over';
  ctx.clearRect(0, 0, canvas.width, canvas.height);
  const repaired = { kind: 'repaired', view } as const;
  const complete = paintPicture(ctx, tiles, records.picture, repaired, from, room, ratio);
  ctx.translate(-box.x, -box.y);
  ctx.globalCompositeOperation = 'destination-in';
  drawSite(ctx, path, copy, viewport.zoom, ratio);
  canvas.style.opacity = String(copy.strength);
  canvas.hidden = false;
  return complete;
}

/** Lays a canvas over a part of the table, given in device px. */
function layOn(canvas: HTMLCanvasElement, box: Rect, ratio: number): void {
  const width = Math.ceil(box.width / GROWS) * GROWS;
  const height = Math.ceil(box.height / GROWS) * GROWS;
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
    canvas.style.width = `${width / ratio}px`;
    canvas.style.height = `${height / ratio}px`;
  }
  canvas.style.transform = `translate(${box.x / ratio}px, ${box.y / ratio}px)`;
}

/** What is to be shown as a copy, before it is computed. */
interface Copy {
  readonly site: Site;
  readonly shift: Pick<Donor, 'dx' | 'dy'>;
  readonly width: number;
  readonly softness: number;
  readonly strength: number;
}

/** A repair being dragged, or its donor: the substitute shows inside it at once. */
function slidingCopy({ sliding }: BenchState): Copy | null {
  if (!sliding || !isCopy(sliding.method) || !isShown(sliding.method.donor)) return null;
  const { site, width, softness, strength, flow, method } = sliding;
  return { site, shift: method.donor, width, softness, strength: strength * flow };
}

/** What a clone or graft is about to copy, under the cursor or along what is being drawn. */
function drawnCopy(state: BenchState): Copy | null {
  const { tool, draft, pending, pointer } = state;
  if (tool.method !== 'clone' && tool.method !== 'graft') return null;
  if (shapeNow(state) === 'pick' || state.pickingDonor) return null;
  const site: Site | null =
    draft?.site ?? pending ?? (pointer ? { kind: 'dab', at: [pointer[0], pointer[1]] } : null);
  const shift = site && shiftFor(state, site);
  if (!site || !shift) return null;
  const { width, softness, strength, flow } = tool;
  return { site, shift, width, softness, strength: strength * flow };
}

/** The part of the table, in whole device px, that holds a path with `reach` CSS px round it. */
function boundsOf(path: readonly Point[], reach: number, table: Size, ratio: number): Rect {
  const xs = path.map((p) => p[0]);
  const ys = path.map((p) => p[1]);
  const x = Math.max(0, Math.floor((Math.min(...xs) - reach) * ratio));
  const y = Math.max(0, Math.floor((Math.min(...ys) - reach) * ratio));
  return {
    x,
    y,
    width: Math.max(
      0,
      Math.min(table.width * ratio, Math.ceil((Math.max(...xs) + reach) * ratio)) - x,
    ),
    height: Math.max(
      0,
      Math.min(table.height * ratio, Math.ceil((Math.max(...ys) + reach) * ratio)) - y,
    ),
  };
}

/** The shift that is about to be copied by; null where the screen cannot show it: looked for, laid on otherwise, elsewhere. */
function shiftFor({ tool, pointer }: BenchState, site: Site): Pick<Donor, 'dx' | 'dy'> | null {
  if (tool.donor.kind === 'shift') return isShown(tool.donor.shift) ? tool.donor.shift : null;
  if (tool.donor.kind === 'search' || !pointer) return null;
  if (!isShown(tool.donor.laid)) return null;
  const [x, y] = startOf(site);
  return { dx: Math.round(tool.donor.at[0] - x), dy: Math.round(tool.donor.at[1] - y) };
}

function isShown(laid: Omit<Donor, 'dx' | 'dy'>): boolean {
  return isPlainShift(laid) && laid.picture === null;
}

/** Draws the area of a site: its stroke, or what it encloses, with soft rims. */
function drawSite(
  ctx: CanvasRenderingContext2D,
  path: readonly Point[],
  { site, width: wide, softness }: Copy,
  zoom: number,
  ratio: number,
): void {
  const width = wide * zoom * ratio;
  const area = site.kind === 'outline' || site.kind === 'rectangle';
  const blur = (softness * width) / 6;
  ctx.filter = blur > 0.5 ? `blur(${blur}px)` : 'none';
  ctx.lineCap = 'round';
  ctx.lineJoin = 'round';
  ctx.lineWidth = Math.max(1, width * (1 - softness / 2));
  ctx.beginPath();
  path.forEach(([x, y], i) => {
    if (i === 0) ctx.moveTo(x * ratio, y * ratio);
    else ctx.lineTo(x * ratio, y * ratio);
    if (path.length === 1) ctx.lineTo(x * ratio + 0.01, y * ratio);
  });
  if (area) ctx.fill();
  else ctx.stroke();
  ctx.filter = 'none';
}
