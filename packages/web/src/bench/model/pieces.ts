import type { Point } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { piecePlace } from '@tersum/document';
import type { Bench } from './bench.js';
import { repairEdit } from './repairs.js';

/** Sets a pin in a piece where it was clicked. */
export function setPin(bench: Bench, repair: Repair, at: Point): void {
  const { method } = repair;
  if (method.kind !== 'piece') return;
  const straight: Repair = { ...repair, method: { ...method, pins: [] } };
  // The pin holds the point of the unbent piece that is seen here now.
  const from = piecePlace(straight).lay.fromRest(piecePlace(repair).lay.toRest(at));
  const pins = [...method.pins, { from: pair(from), to: pair(at) }];
  void bench.change('Set a pin', [repairEdit({ ...repair, method: { ...method, pins } })]);
}

/** Paints part of a piece in or out; the stroke stays with the piece wherever it is laid. */
export function hideOrShow(
  bench: Bench,
  repair: Repair,
  points: readonly Point[],
  show: boolean,
): void {
  const { method } = repair;
  if (method.kind !== 'piece') return;
  const { tool } = bench.store.getState();
  const { lay } = piecePlace(repair);
  const stroke = {
    show,
    points: points.map((p) => pair(lay.toRest(p))),
    width: tool.width,
    softness: Math.max(0.4, tool.softness),
  };
  const reveal = [...method.reveal, stroke];
  void bench.change(show ? 'Reveal part of a piece' : 'Hide part of a piece', [
    repairEdit({ ...repair, method: { ...method, reveal } }),
  ]);
}

function pair([x, y]: Point): [number, number] {
  return [x, y];
}
