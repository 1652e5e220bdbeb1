import type { DonorMap } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import type { GuideLine } from '../fill/guides.js';
import type { FillOptions } from '../fill/search.js';
import { NothingToCopy, searchFill } from '../fill/search.js';
import { searchWindow } from '../fill/window.js';
import { castBy } from '../find/cast.js';
import { findGuides } from '../find/structure.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { crop, frameOf, intersect, paste, shift } from '../raster/rect.js';
import { fill } from '../repair/fill.js';
import { cropMask } from '../shape/crop-mask.js';
import { maskBox } from '../shape/mask-box.js';
import type { Task } from '../task/task.js';
import { portionOf } from '../task/task.js';
import type { Band } from './bands.js';
import { bandsFor } from './bands.js';
import type { Sides } from './canvas.js';
import { canvasRect, onCanvas } from './canvas.js';

/** What a filling of sides or gaps may be asked for. Guides are in the picture's coordinates. */
export type SidesOptions = Pick<FillOptions, 'seed' | 'crew' | 'guides' | 'texture'>;

/** How far from a new side it is filled from, px: a ground's tone and texture are likest where it is near. */
const NEAR = 48;

/** Decides what a hole in a picture is filled from, lines of structure continued. @throws NothingToCopy */
export function searchHole(
  picture: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  { guides = [], margin, ...options }: SidesOptions & { readonly margin?: number } = {},
  task?: Task,
): DonorMap {
  const box = maskBox(hole, picture.width);
  if (!box) throw new NothingToCopy('The site covers no pixel of the picture.');
  const maskOf = (part: Rect): Uint8Array => cropMask(hole, picture.width, part);
  const window = searchWindow(box, frameOf(picture), maskOf, margin);
  const below = crop(picture, window);
  const mask = cropMask(hole, picture.width, window);
  const closed = cropMask(banned, picture.width, window);
  const lines = [...findGuides(below, mask, true), ...movedLines(guides, -window.x, -window.y)];
  return searchFill(below, window, mask, closed, { ...options, guides: lines }, task);
}

/**
 * Decides what every pixel of new sides is copied from: left and right ground by ground, each from its own height alone, so
 * that a floor stays below and its joint goes on level; then top and bottom.
 * @param subject 1 = not to be copied, nor what it casts on its ground, a value a pixel of the picture; null when all may be
 * @returns a map over the canvas, in the picture's coordinates
 * @throws NothingToCopy
 */
export function searchSides(
  picture: Raster,
  sides: Sides,
  subject: Uint8Array | null,
  options: SidesOptions = {},
  task?: Task,
): DonorMap {
  const rect = canvasRect(picture, sides);
  const { at: _, ...canvas } = onCanvas(picture, rect);
  const size = rect.width * rect.height;
  const state: State = {
    picture: canvas,
    hole: new Uint8Array(size).fill(1),
    banned: new Uint8Array(size),
    map: {
      rect,
      dx: new Int16Array(size).fill(NOT_FILLED),
      dy: new Int16Array(size).fill(NOT_FILLED),
      confidence: new Uint8Array(size),
    },
  };
  const cast = subject && castBy(picture, subject);
  const closed = subject?.map((s, p) => s | cast![p]!);
  for (let y = 0; y < picture.height; y++) {
    const to = (y + sides.top) * rect.width + sides.left;
    state.hole.fill(0, to, to + picture.width);
    if (closed) state.banned.set(closed.subarray(y * picture.width, (y + 1) * picture.width), to);
  }
  const guides = movedLines(options.guides ?? [], sides.left, sides.top);
  const bands = bandsFor(picture, sides, rect, subject);
  const placed = bands.map((band) => ({
    rect: shift(band.rect, rect.x, rect.y),
    room: shift(band.room, rect.x, rect.y),
  }));
  bands.forEach((band, k) => {
    const step = portionOf(task, k / bands.length, (k + 1) / bands.length);
    const seen = bands.slice(k + 1).some((later) => intersect(later.room, band.rect).width > 0);
    fillBand(state, band, seen, { ...options, guides }, step);
  });
  return { ...state.map, bands: placed };
}

/** The canvas as filled so far, and what was decided. */
interface State {
  picture: Raster;
  readonly hole: Uint8Array;
  readonly banned: Uint8Array;
  readonly map: DonorMap;
}

/** @param seen whether a later band looks at what this one becomes */
function fillBand(
  state: State,
  { rect, room, source }: Band,
  seen: boolean,
  { guides = [], ...options }: SidesOptions,
  task: Task,
): void {
  const { width } = state.picture;
  const part = crop(state.picture, room);
  const missing = cropMask(state.hole, width, room);
  const now = new Uint8Array(missing.length);
  const subject = cropMask(state.banned, width, room);
  const own = subject.slice();
  const [wanted, open] = [rect, source].map((r) => shift(r, -room.x, -room.y)) as [Rect, Rect];
  for (let y = 0; y < room.height; y++) {
    const row = y * room.width;
    if (y >= wanted.y && y < wanted.y + wanted.height) {
      const from = row + wanted.x;
      now.set(missing.subarray(from, from + wanted.width), from);
    }
    const isOpen = y >= open.y && y < open.y + open.height;
    const from = isOpen ? row + open.x : row;
    own.fill(1, row, from).fill(1, from + (isOpen ? open.width : 0), row + room.width);
  }
  const lines = movedLines(guides, -room.x, -room.y).filter(({ points }) =>
    points.some(([, y]) => y >= 0 && y < room.height),
  );
  const margin = rect.height === room.height ? NEAR : undefined;
  // From its own height; where the subject takes all of that, from near it; at the worst from the subject too.
  for (const closed of [own, subject, new Uint8Array(own.length)])
    try {
      const map = searchHole(part, now, closed, { ...options, margin, guides: lines }, task);
      if (seen) {
        const coverage = Float32Array.from(now);
        const input = { below: part, origin: frameOf(part), map, coverage };
        const filled = fill(input, 1, { crew: options.crew });
        state.picture = paste(state.picture, filled, room);
      }
      note(state.map, { ...map, rect: shift(map.rect, room.x, room.y) });
      break;
    } catch (error) {
      if (!(error instanceof NothingToCopy)) throw error;
    }
  for (let y = rect.y; y < rect.y + rect.height; y++)
    state.hole.fill(0, y * width + rect.x, y * width + rect.x + rect.width);
}

/** Takes a band's decisions over. */
function note(whole: DonorMap, { rect, dx, dy, confidence }: DonorMap): void {
  for (let y = 0, i = 0; y < rect.height; y++)
    for (let x = 0; x < rect.width; x++, i++) {
      if (dx[i] === NOT_FILLED) continue;
      const p = (rect.y + y) * whole.rect.width + rect.x + x;
      whole.dx[p] = dx[i]!;
      whole.dy[p] = dy[i]!;
      whole.confidence[p] = confidence[i]!;
    }
}

function movedLines(lines: readonly GuideLine[], dx: number, dy: number): GuideLine[] {
  return lines.map(({ points }) => ({ points: points.map(([x, y]) => [x + dx, y + dy]) }));
}
