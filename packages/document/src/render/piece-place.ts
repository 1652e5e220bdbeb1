import type { Coverage, Lay, Rect } from '@tersum/core';
import {
  coverageOf,
  EMPTY_RECT,
  enclose,
  extentOf,
  intersect,
  laidBox,
  layOf,
  MOST_PIXELS,
  sampleCoverage,
  shift,
  unite,
} from '@tersum/core';
import type { Donor } from '../schema/donor.js';
import type { Piece } from '../schema/piece.js';
import type { Repair } from '../schema/repair.js';

/** Where a piece comes from and where it is laid. */
export interface PiecePlace {
  readonly donor: Donor;
  readonly matchTone: boolean;
  readonly lay: Lay;
  /** Box of the lifted outline, in the picture it was lifted from. */
  readonly lifted: Rect;
  /** Box of the piece as laid down, not clipped. */
  readonly laid: Rect;
}

/** @throws Error when the repair is no piece */
export function piecePlace(repair: Repair): PiecePlace {
  const piece = pieceOf(repair);
  const { donor, skew, corners, pins, matchTone } = piece;
  const box = extentOf(repair.site, repair);
  const lay = layOf({ placement: donor, skew, corners, pins }, box);
  const lifted = shift(box, Math.floor(donor.dx), Math.floor(donor.dy));
  return {
    donor,
    matchTone,
    lay,
    lifted: unite(lifted, shift(box, Math.ceil(donor.dx), Math.ceil(donor.dy))),
    laid: laidBox(lay, box, pins.length > 0),
  };
}

/** How much of each pixel a piece covers where it is laid down, clipped to the picture. */
export function pieceCoverage(repair: Repair, frame: Rect): Coverage {
  const { lay, laid } = piecePlace(repair);
  const rest = restCoverage(repair, pieceOf(repair));
  const rect = intersect(laid, frame);
  const values = new Float32Array(rect.width * rect.height);
  for (let y = 0, p = 0; y < rect.height; y++)
    for (let x = 0; x < rect.width; x++, p++)
      values[p] = sampleCoverage(rest, lay.toRest([rect.x + x, rect.y + y]));
  return { rect, values };
}

/** Coverage of the piece at rest: its outline, as far as it is revealed. */
function restCoverage(repair: Repair, { reveal, hidden }: Piece): Coverage {
  const box = extentOf(repair.site, repair);
  // Larger than any picture: it covers nothing.
  if (box.width * box.height > MOST_PIXELS) return { rect: EMPTY_RECT, values: new Float32Array() };
  const outline = coverageOf(
    repair.site,
    repair,
    enclose(box.x, box.y, box.x + box.width, box.y + box.height),
  );
  if (!reveal.length && !hidden) return outline;
  const { rect, values } = outline;
  const shown = new Float32Array(values.length).fill(hidden ? 0 : 1);
  for (const { show, points, width, softness } of reveal) {
    const stroke = coverageOf({ kind: 'stroke', points }, { width, softness, flow: 1 }, rect);
    const { rect: at } = stroke;
    for (let y = 0, k = 0; y < at.height; y++) {
      let p = (at.y + y - rect.y) * rect.width + at.x - rect.x;
      for (let x = 0; x < at.width; x++, k++, p++)
        shown[p]! += ((show ? 1 : 0) - shown[p]!) * stroke.values[k]!;
    }
  }
  return { rect, values: values.map((v, p) => v * shown[p]!) };
}

function pieceOf({ method }: Repair): Piece {
  if (method.kind !== 'piece') throw new Error('not a piece');
  return method;
}
