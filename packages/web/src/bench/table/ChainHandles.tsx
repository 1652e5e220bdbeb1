import type { Point } from '@tersum/core';
import { pointOnBow } from '@tersum/core';
import type { Repair } from '@tersum/document';
import { useState } from 'react';
import { useBench } from '../model/context.js';
import { repairEdit, searchedAnew } from '../model/repairs.js';
import { Handle } from './Handle.js';
import { usePull } from './usePull.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

interface ChainHandlesProps {
  readonly repair: Repair;
  readonly viewport: Viewport;
  readonly table: Size;
}

/** An outline drawn freely has too many corners to be moved one by one. */
const MOST_CORNERS = 60;

/** Handles of a chain or outline: square ones move its corners, round ones in the middle of runs bend them. */
export function ChainHandles({ repair, viewport, table }: ChainHandlesProps) {
  const { site } = repair;
  if (site.kind === 'outline' && site.points.length <= MOST_CORNERS)
    return site.points.map((point, i) => (
      <Corner key={i} repair={repair} index={i} at={point} viewport={viewport} table={table} />
    ));
  if (site.kind !== 'chain') return null;
  return site.points.map((point, i) => (
    <g key={i}>
      {i + 1 < site.points.length && (
        <Bend
          repair={repair}
          run={i}
          from={point}
          to={site.points[i + 1]!}
          viewport={viewport}
          table={table}
        />
      )}
      <Corner repair={repair} index={i} at={point} viewport={viewport} table={table} />
    </g>
  ));
}

type Sight = Pick<ChainHandlesProps, 'repair' | 'viewport' | 'table'>;

function Corner({ repair, index, at, viewport, table }: Sight & { index: number; at: Point }) {
  const { bench } = useBench();
  const [by, setBy] = useState<Point>([0, 0]);
  const moved = (way: Point): Repair => {
    if (repair.site.kind !== 'chain' && repair.site.kind !== 'outline') return repair;
    const points = repair.site.points.map((p, i): [number, number] =>
      i === index ? [p[0] + way[0], p[1] + way[1]] : p,
    );
    return searchedAnew({ ...repair, site: { ...repair.site, points } });
  };
  const pull = usePull(setBy, (way) => {
    setBy([0, 0]);
    void bench.change('Move a corner', [repairEdit(moved(way))]);
  });
  const [x, y] = toScreen(viewport, table, [at[0] + by[0], at[1] + by[1]]);
  return (
    <Handle
      as="rect"
      x={x - 4}
      y={y - 4}
      width={8}
      height={8}
      {...pull}
      data-handle={`corner-${index}`}
    />
  );
}

function Bend({
  repair,
  run,
  from,
  to,
  viewport,
  table,
}: Sight & { run: number; from: Point; to: Point }) {
  const { bench } = useBench();
  const [by, setBy] = useState(0);
  const sagitta = (repair.site.kind === 'chain' ? repair.site.bends[run] : 0) ?? 0;
  const across = (way: Point): number => {
    const dx = to[0] - from[0];
    const dy = to[1] - from[1];
    const length = Math.hypot(dx, dy) || 1;
    return (-dy * way[0] + dx * way[1]) / length;
  };
  const pull = usePull(
    (way) => setBy(across(way)),
    (way) => {
      setBy(0);
      if (repair.site.kind !== 'chain') return;
      const { points, shares } = repair.site;
      const bends = points
        .slice(1)
        .map((_, i) =>
          i === run
            ? sagitta + across(way)
            : (repair.site.kind === 'chain' && repair.site.bends[i]) || 0,
        );
      const bent = searchedAnew({ ...repair, site: { kind: 'chain', points, bends, shares } });
      void bench.change('Bend a run', [repairEdit(bent)]);
    },
  );
  const [x, y] = toScreen(viewport, table, pointOnBow(from, to, sagitta + by, 0.5));
  return <Handle as="circle" cx={x} cy={y} r={4.5} {...pull} data-handle={`bend-${run}`} />;
}
