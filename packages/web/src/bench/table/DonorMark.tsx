import type { Point } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { isCopy } from '@tersum/document';
import styled from 'styled-components';
import { useBench, useBenchState } from '../model/context.js';
import { donorCorners, withDonor } from '../model/donors.js';
import { repairEdit } from '../model/repairs.js';
import { PlacementHandles } from './PlacementHandles.js';
import { usePull } from './usePull.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

interface DonorMarkProps {
  readonly repair: Repair;
  readonly letter: string;
  readonly viewport: Viewport;
  readonly table: Size;
}

/**
 * Four corner brackets where the selected repair copies from; dragging them moves the donor, the handles beside
 * them turn and scale it.
 */
export function DonorMark({ repair, letter, viewport, table }: DonorMarkProps) {
  const { bench } = useBench();
  const sliding = useBenchState((s) => (s.sliding?.id === repair.id ? s.sliding : null));
  const shown = sliding ?? repair;
  const { method } = repair;
  const donor = isCopy(method) ? method.donor : null;
  const moved = ([dx, dy]: Point): Repair =>
    donor
      ? withDonor(repair, { dx: Math.round(donor.dx + dx), dy: Math.round(donor.dy + dy) })
      : repair;
  const pull = usePull(
    (way) => {
      bench.set({ sliding: moved(way) });
      bench.tryOut([repairEdit(moved(way))]);
    },
    (way) => void bench.change('Move a donor', [repairEdit(moved(way))]),
  );
  if (!isCopy(shown.method)) return null;
  const marks = [shown.method.donor, ...(shown.method.other ? [shown.method.other] : [])];
  return (
    <>
      {marks.map((d, i) => {
        if (d.picture) return null;
        const corners = donorCorners(shown, d).map((p) => toScreen(viewport, table, p));
        const path = brackets(corners);
        return (
          <Mark key={i} {...(i ? {} : pull)} data-donor={i ? `${letter}2` : letter}>
            <polygon points={corners.map((c) => c.join(',')).join(' ')} fill="transparent" />
            <path d={path} className="halo" />
            <path d={path} className="line" />
            <text
              x={(corners[0]![0] + corners[1]![0]) / 2}
              y={Math.min(...corners.map((c) => c[1])) - 6}
            >
              {letter}
            </text>
          </Mark>
        );
      })}
      {!shown.method.donor.picture && (
        <PlacementHandles
          repair={repair}
          corners={donorCorners(shown, shown.method.donor)}
          inward
          viewport={viewport}
          table={table}
        />
      )}
    </>
  );
}

/** Corner brackets of a quadrangle on screen. */
function brackets(corners: readonly Point[]): string {
  const arm = 9;
  return corners
    .map((c, i) => {
      const before = unit(c, corners[(i + 3) % 4]!, arm);
      const after = unit(c, corners[(i + 1) % 4]!, arm);
      return `M${before.join(' ')}L${c.join(' ')}L${after.join(' ')}`;
    })
    .join('');
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
