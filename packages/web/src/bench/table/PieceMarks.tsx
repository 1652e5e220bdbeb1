import type { Point } from '@tersum/core';
import { pathOf } from '@tersum/core';
import type { Method, Repair } from '@tersum/document';
import { piecePlace } from '@tersum/document';
import styled from 'styled-components';
import { useBench, useBenchState } from '../model/context.js';
import { laidCorners, standingCorners } from '../model/donors.js';
import { repairEdit } from '../model/repairs.js';
import { Handle } from './Handle.js';
import { PlacementHandles } from './PlacementHandles.js';
import { usePull } from './usePull.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

type PieceMethod = Extract<Method, { readonly kind: 'piece' }>;

interface PieceMarksProps {
  readonly repair: Repair;
  readonly piece: PieceMethod;
  readonly letter: string;
  readonly viewport: Viewport;
  readonly table: Size;
}

/** Outline of a piece as it is laid down, its handles, pins and line of symmetry. */
export function PieceMarks({ repair, piece, letter, viewport, table }: PieceMarksProps) {
  const { hand, sliding, axis } = useBenchState((s) => ({
    hand: s.pieceHand,
    sliding: s.sliding?.id === repair.id ? s.sliding : null,
    axis: s.axis?.repair === repair.id ? s.axis.line : null,
  }));
  const shown = sliding?.method.kind === 'piece' ? sliding : repair;
  const { lay } = piecePlace(shown);
  const screen = (p: Point): Point => toScreen(viewport, table, p);
  const outline = dense(pathOf(shown.site)).map((p) => screen(lay.fromRest(p)));
  const d = `${outline.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('')}Z`;
  const corners = laidCorners(shown);
  const top = outline.reduce((best, p) => (p[1] < best[1] ? p : best), outline[0]!);
  return (
    <g data-site={letter}>
      <path d={d} className="halo" />
      <path d={d} className="edge" />
      <text x={top[0]} y={top[1] - 8}>
        {letter}
      </text>
      {axis && (
        <Axis
          x1={screen(axis[0])[0]}
          y1={screen(axis[0])[1]}
          x2={screen(axis[1])[0]}
          y2={screen(axis[1])[1]}
        />
      )}
      {hand === 'move' && (
        <PlacementHandles repair={repair} corners={corners} viewport={viewport} table={table} />
      )}
      {hand === 'corners' &&
        corners.map((at, i) => (
          <CornerHandle
            key={i}
            repair={repair}
            piece={piece}
            index={i}
            at={screen(at)}
            viewport={viewport}
            table={table}
          />
        ))}
      {piece.pins.map((pin, i) => (
        <PinHandle key={i} repair={repair} piece={piece} index={i} at={screen(pin.to)} />
      ))}
    </g>
  );
}

interface SpotProps {
  readonly repair: Repair;
  readonly piece: PieceMethod;
  readonly index: number;
  readonly at: Point;
}

function CornerHandle({
  repair,
  piece,
  index,
  at,
}: SpotProps & { readonly viewport: Viewport; readonly table: Size }) {
  const { bench } = useBench();
  const drawn = (way: Point): Repair => {
    const none: [number, number][] = standingCorners(repair).map(() => [0, 0]);
    const corners = (piece.corners ?? none).map(([x, y], i): [number, number] =>
      i === index ? [x + way[0], y + way[1]] : [x, y],
    ) as NonNullable<PieceMethod['corners']>;
    return { ...repair, method: { ...piece, corners } };
  };
  const pull = usePull(
    (way) => {
      bench.set({ sliding: drawn(way) });
      bench.tryOut([repairEdit(drawn(way))]);
    },
    (way) => void bench.change('Draw a corner off', [repairEdit(drawn(way))]),
  );
  return (
    <Handle
      as="rect"
      x={at[0] - 5}
      y={at[1] - 5}
      width={10}
      height={10}
      {...pull}
      data-handle={`piece-corner-${index}`}
    />
  );
}

function PinHandle({ repair, piece, index, at }: SpotProps) {
  const { bench } = useBench();
  const bent = (way: Point): Repair => {
    const pins = piece.pins.map((pin, i) =>
      i === index
        ? { ...pin, to: [pin.to[0] + way[0], pin.to[1] + way[1]] as [number, number] }
        : pin,
    );
    return { ...repair, method: { ...piece, pins } };
  };
  const pull = usePull(
    (way) => {
      bench.set({ sliding: bent(way) });
      bench.tryOut([repairEdit(bent(way))]);
    },
    (way) => void bench.change('Bend a piece', [repairEdit(bent(way))]),
  );
  const takeOut = (): void =>
    void bench.change('Take a pin out', [
      repairEdit({
        ...repair,
        method: { ...piece, pins: piece.pins.filter((_, i) => i !== index) },
      }),
    ]);
  return (
    <Handle
      as="circle"
      cx={at[0]}
      cy={at[1]}
      r={5}
      {...pull}
      onDoubleClick={takeOut}
      data-handle={`pin-${index}`}
    />
  );
}

/** More points along a closed line, so that bends show. */
function dense(path: readonly Point[]): Point[] {
  return path.flatMap((p, i) => {
    const q = path[(i + 1) % path.length]!;
    const n = Math.max(1, Math.min(12, Math.round(Math.hypot(q[0] - p[0], q[1] - p[1]) / 12)));
    return Array.from({ length: n }, (_, k): Point => [
      p[0] + ((q[0] - p[0]) * k) / n,
      p[1] + ((q[1] - p[1]) * k) / n,
    ]);
  });
}

const Axis = styled.line`
  stroke: #1f2326;
  stroke-width: 1;
  stroke-dasharray: 8 3 2 3;
`;
