import type { Point } from '@tersum/core';
import { pathOf } from '@tersum/core';
import type { Donor, Site } from '@tersum/document';
import { startOf } from '../model/bench.js';
import type { BenchState } from '../model/state.js';
import { shapeNow } from '../model/state.js';
import { paintPicture } from './paint.js';
import type { TileStore } from './tile-store.js';
import type { Size } from './viewport.js';
import { toScreen } from './viewport.js';

/** Kept between frames: making canvases costs more than drawing on them. */
let spare: { readonly mask: HTMLCanvasElement; readonly donor: HTMLCanvasElement } | null = null;

/**
 * Shows what a clone or graft is about to copy: under the cursor, and along the stroke being drawn. Drawn from
 * the tiles on screen; a graft's tone follows when it is computed.
 */
export function paintCopyPreview(
  ctx: CanvasRenderingContext2D,
  tiles: TileStore,
  state: BenchState,
  ratio: number,
): void {
  const { tool, viewport, table, records, draft, pointer } = state;
  if (
    !records ||
    !viewport ||
    tool.method === 'fill' ||
    shapeNow(state) === 'pick' ||
    state.pickingDonor
  )
    return;
  const site: Site | null = draft
    ? draft.site
    : pointer
      ? { kind: 'dab', at: [pointer[0], pointer[1]] }
      : null;
  if (!site || state.asReceived) return;
  const shift = shiftFor(state, site);
  if (!shift) return;

  spare ??= {
    mask: document.createElement('canvas'),
    donor: document.createElement('canvas'),
  };
  const { mask, donor } = spare;
  const path = pathOf(site).map((point) => toScreen(viewport, table, point));
  const box = boundsOf(path, (tool.width / 2) * viewport.zoom + 2, table, ratio);
  if (!box.width || !box.height) return;
  for (const canvas of [mask, donor]) {
    canvas.width = box.width;
    canvas.height = box.height;
  }
  const off = mask.getContext('2d')!;
  off.translate(-box.x, -box.y);
  drawSiteMask(off, path, site, state, ratio);
  off.setTransform(1, 0, 0, 1, 0, 0);
  off.globalCompositeOperation = 'source-in';
  const shifted = { ...viewport, x: viewport.x + shift.dx, y: viewport.y + shift.dy };
  const view = state.preview ?? state.view;
  const from = donor.getContext('2d')!;
  from.translate(-box.x, -box.y);
  paintPicture(from, tiles, records.picture, { kind: 'repaired', view }, shifted, table, ratio);
  off.drawImage(donor, 0, 0);
  ctx.save();
  ctx.globalAlpha = tool.strength * tool.flow;
  ctx.drawImage(mask, box.x, box.y);
  ctx.restore();
}

/** The part of the table, in whole device px, that holds a path with `reach` CSS px round it. */
function boundsOf(path: readonly Point[], reach: number, table: Size, ratio: number) {
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

function shiftFor({ tool, pointer }: BenchState, site: Site): Donor | null {
  if (tool.donor.kind === 'shift') return tool.donor.shift;
  if (tool.donor.kind === 'search' || !pointer) return null;
  const [x, y] = startOf(site);
  return { dx: Math.round(tool.donor.at[0] - x), dy: Math.round(tool.donor.at[1] - y) };
}

function drawSiteMask(
  off: CanvasRenderingContext2D,
  path: readonly Point[],
  site: Site,
  state: BenchState,
  ratio: number,
): void {
  const { viewport, tool } = state;
  const width = tool.width * viewport!.zoom * ratio;
  const area = site.kind === 'outline' || site.kind === 'rectangle';
  const blur = (tool.softness * width) / 6;
  off.globalCompositeOperation = 'source-over';
  off.filter = blur > 0.5 ? `blur(${blur}px)` : 'none';
  off.lineCap = 'round';
  off.lineJoin = 'round';
  off.lineWidth = Math.max(1, width * (1 - tool.softness / 2));
  off.beginPath();
  path.forEach(([x, y], i) => {
    if (i === 0) off.moveTo(x * ratio, y * ratio);
    else off.lineTo(x * ratio, y * ratio);
    if (path.length === 1) off.lineTo(x * ratio + 0.01, y * ratio);
  });
  if (area) off.fill();
  else off.stroke();
  off.filter = 'none';
}
