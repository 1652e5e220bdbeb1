import type { Point } from '@tersum/core';
import { pathOf } from '@tersum/core';
import { isCopy, isPlainShift } from '@tersum/document';
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
  const { viewport, table, records } = state;
  if (!records || !viewport || state.asReceived) return;
  const copy = slidingCopy(state) ?? drawnCopy(state);
  if (!copy) return;
  const { site, shift } = copy;

  spare ??= {
    mask: document.createElement('canvas'),
    donor: document.createElement('canvas'),
  };
  const { mask, donor } = spare;
  const path = pathOf(site).map((point) => toScreen(viewport, table, point));
  const box = boundsOf(path, (copy.width / 2) * viewport.zoom + 2, table, ratio);
  if (!box.width || !box.height) return;
  for (const canvas of [mask, donor]) {
    canvas.width = box.width;
    canvas.height = box.height;
  }
  const off = mask.getContext('2d')!;
  off.translate(-box.x, -box.y);
  drawSiteMask(off, path, copy, viewport.zoom, ratio);
  off.setTransform(1, 0, 0, 1, 0, 0);
  off.globalCompositeOperation = 'source-in';
  const shifted = { ...viewport, x: viewport.x + shift.dx, y: viewport.y + shift.dy };
  const view = state.view;
  const from = donor.getContext('2d')!;
  from.translate(-box.x, -box.y);
  paintPicture(from, tiles, records.picture, { kind: 'repaired', view }, shifted, table, ratio);
  off.drawImage(donor, 0, 0);
  ctx.save();
  ctx.globalAlpha = copy.strength;
  ctx.drawImage(mask, box.x, box.y);
  ctx.restore();
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

function drawSiteMask(
  off: CanvasRenderingContext2D,
  path: readonly Point[],
  { site, width: wide, softness }: Copy,
  zoom: number,
  ratio: number,
): void {
  const width = wide * zoom * ratio;
  const area = site.kind === 'outline' || site.kind === 'rectangle';
  const blur = (softness * width) / 6;
  off.globalCompositeOperation = 'source-over';
  off.filter = blur > 0.5 ? `blur(${blur}px)` : 'none';
  off.lineCap = 'round';
  off.lineJoin = 'round';
  off.lineWidth = Math.max(1, width * (1 - softness / 2));
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
