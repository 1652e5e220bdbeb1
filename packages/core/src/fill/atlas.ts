import { placementMap } from '../donor/placement.js';
import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import { resample } from '../raster/resample.js';
import { frameOf } from '../raster/rect.js';
import type { Point } from '../shape/site.js';

/** A way donors are laid besides as they stand: the whole window turned, mirrored and scaled about a point. */
export interface Sheet {
  /** Degrees, counter-clockwise on screen. */
  readonly turn: number;
  /** Left and right exchanged. */
  readonly mirrored: boolean;
  /** Size beside its own, 0.25..4. */
  readonly scale: number;
}

/** Which donors may be laid otherwise than they stand. */
export interface SheetWishes {
  /** Donors may be turned by up to so many degrees either way. @default 0 */
  turn?: number;
  /** Donors may be mirrored. @default false */
  mirror?: boolean;
  /** Donors may be scaled within these bounds, 1 = their own size. @default [1, 1] */
  scale?: readonly [number, number];
}

/** The sheets that stand for a range of turns and scales: its ends, and a middle where it is wide. */
export function sheetsFor({ turn = 0, mirror = false, scale = [1, 1] }: SheetWishes): Sheet[] {
  const plain = { turn: 0, mirrored: false, scale: 1 };
  const turns = turn > 0 ? (turn > 12 ? [turn, turn / 2] : [turn]) : [];
  const sizes = scale.filter((s) => Math.abs(s - 1) > 0.01);
  return [
    ...(mirror ? [{ ...plain, mirrored: true }] : []),
    ...turns.flatMap((t) => [
      { ...plain, turn: t },
      { ...plain, turn: -t },
    ]),
    ...sizes.map((s) => ({ ...plain, scale: s })),
  ];
}

/** The window with its sheets below it: sources in them are named by their place here. */
export interface Atlas {
  readonly raster: Raster;
  readonly hole: Uint8Array;
  /** 1 = must not be copied, {@link OUTSIDE} = no part of the picture. */
  readonly banned: Uint8Array;
  /** Rows from one sheet to the next; the window itself is the first. */
  readonly rows: number;
}

/** Marks what is no part of the picture; more than a patch of forbidden pixels adds up to. */
export const OUTSIDE = 64;

/** Rows are whole at every pyramid level. */
const STEP = 64;
/** Donor maps tell shifts in 16 bits. */
const MOST_ROWS = 32_000;

/** Rows from sheet to sheet for a window of this height. */
export function sheetRows(height: number): number {
  return STEP * Math.ceil((height + STEP / 2) / STEP);
}

/** As many of the sheets as a donor map can tell apart. */
export function fittingSheets(height: number, sheets: readonly Sheet[]): readonly Sheet[] {
  return sheets.slice(0, Math.max(0, Math.floor(MOST_ROWS / sheetRows(height)) - 1));
}

/** Lays sheets out. @param middle what they are turned, mirrored and scaled about, px of the window */
export function atlasOf(
  window: Raster,
  hole: Uint8Array,
  banned: Uint8Array,
  sheets: readonly Sheet[],
  middle: Point,
): Atlas {
  const { width, height, channels, data } = window;
  const rows = sheetRows(height);
  const raster = createRaster(width, rows * (1 + sheets.length), channels, depthOf(data));
  raster.data.set(data);
  const n = width * raster.height;
  const allHole = new Uint8Array(n);
  allHole.set(hole);
  const allBanned = new Uint8Array(n).fill(OUTSIDE);
  allBanned.set(banned);
  const frame = frameOf(window);
  const closed = createRaster(width, height, 1);
  for (let p = 0; p < hole.length; p++) closed.data[p] = hole[p] || banned[p] ? 255 : 0;
  sheets.forEach((sheet, k) => {
    const map = placementMap(
      { dx: 0, dy: 0, turn: sheet.turn, mirrorX: sheet.mirrored, scale: sheet.scale },
      middle,
    );
    const laid = resample(window, frame, map, frame, frame);
    const shut = resample(closed, frame, map, frame, frame);
    const at = (k + 1) * rows * width;
    raster.data.set(laid.raster.data, at * channels);
    for (let p = 0; p < laid.valid.length; p++)
      allBanned[at + p] = laid.valid[p] ? (shut.raster.data[p] ? 1 : 0) : OUTSIDE;
  });
  return { raster, hole: allHole, banned: allBanned, rows };
}
