import type { Point } from '@tersum/core';
import { extentOf } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { useState } from 'react';
import styled from 'styled-components';
import { useBench } from '../model/context.js';
import { repairEdit } from '../model/repairs.js';
import { usePull } from './usePull.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

interface DonorMarkProps {
  readonly repair: Repair;
  readonly letter: string;
  readonly viewport: Viewport;
  readonly table: Size;
}

/** Four corner brackets where the selected repair copies from; dragging them moves the donor. */
export function DonorMark({ repair, letter, viewport, table }: DonorMarkProps) {
  const { bench } = useBench();
  const [by, setBy] = useState<Point>([0, 0]);
  const { method } = repair;
  const moved = ([dx, dy]: Point): Repair =>
    method.kind === 'fill'
      ? repair
      : {
          ...repair,
          method: {
            kind: method.kind,
            donor: { dx: Math.round(method.donor.dx + dx), dy: Math.round(method.donor.dy + dy) },
          },
        };
  const pull = usePull(
    (way) => {
      setBy(way);
      bench.tryOut([repairEdit(moved(way))]);
    },
    (way) => {
      setBy([0, 0]);
      void bench.change('Move a donor', [repairEdit(moved(way))]);
    },
  );
  if (method.kind === 'fill') return null;
  const box = extentOf(repair.site, repair);
  const x = box.x + method.donor.dx + by[0];
  const y = box.y + method.donor.dy + by[1];
  const corners = [
    [x, y],
    [x + box.width, y],
    [x + box.width, y + box.height],
    [x, y + box.height],
  ].map(([px, py]) => toScreen(viewport, table, [px!, py!]));
  const arm = 9;
  const d = corners
    .map((c, i) => {
      const before = unit(c, corners[(i + 3) % 4]!, arm);
      const after = unit(c, corners[(i + 1) % 4]!, arm);
      return `M${before.join(' ')}L${c.join(' ')}L${after.join(' ')}`;
    })
    .join('');
  return (
    <Mark {...pull} data-donor={letter}>
      <polygon points={corners.map((c) => c.join(',')).join(' ')} fill="transparent" />
      <path d={d} className="halo" />
      <path d={d} className="line" />
      <text x={(corners[0]![0] + corners[1]![0]) / 2} y={Math.min(...corners.map((c) => c[1])) - 6}>
        {letter}
      </text>
    </Mark>
  );
}

function unit(from: Point, to: Point, length: number): Point {
  const dx = to[0] - from[0];
  const dy = to[1] - from[1];
  const far = Math.hypot(dx, dy) || 1;
  const reach = Math.min(length, far / 2);
  return [from[0] + (dx / far) * reach, from[1] + (dy / far) * reach];
}

const Mark = styled.g`
  pointer-events: all;
  cursor: move;
  .halo {
    fill: none;
    stroke: rgb(255 255 255 / 90%);
    stroke-width: 4;
  }
  .line {
    fill: none;
    stroke: #1f2326;
    stroke-width: 1.6;
  }
`;
