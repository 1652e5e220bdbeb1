import type { Point } from '@tersum/core';
import { sampledGuide } from '@tersum/core';
import type { GroundOffer, Guide, Repair } from '@tersum/document';
import { useState } from 'react';
import styled from 'styled-components';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import type { FillMethod } from '../model/fills.js';
import { ask } from '../model/fills.js';
import { isAllowed, toggleGround } from '../model/grounds.js';
import { Handle } from './Handle.js';
import { usePull } from './usePull.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

interface Sight {
  readonly repair: Repair;
  readonly viewport: Viewport;
  readonly table: Size;
}

/** Marks of an open fill: the grounds around it while they are shown, and its guides. */
export function FillMarks({ fill, ...sight }: Sight & { readonly fill: FillMethod }) {
  const grounds = useBenchState((s) =>
    s.grounds?.repair === sight.repair.id ? s.grounds.list : null,
  );
  return (
    <>
      {grounds && <GroundMarks {...sight} grounds={grounds} />}
      {fill.guides.map((guide, i) => (
        <GuideMark key={i} {...sight} fill={fill} guide={guide} index={i} />
      ))}
    </>
  );
}

function GroundMarks({
  repair,
  viewport,
  table,
  grounds,
}: Sight & { readonly grounds: readonly GroundOffer[] }) {
  const { bench } = useBench();
  const picking = useBenchState((s) => s.fillHand === 'pick');
  return (
    <>
      <defs>
        <pattern id="forbidden" width={7} height={7} patternUnits="userSpaceOnUse">
          <path d="M0 7L7 0" stroke={look.todo} strokeWidth={1.6} />
        </pattern>
      </defs>
      {[...grounds]
        .sort((a, b) => b.area - a.area)
        .map((ground, i) => {
          const allowed = isAllowed(repair, ground);
          const d = `${ground.outline
            .map((p, k) => {
              const [x, y] = toScreen(viewport, table, p);
              return `${k ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
            })
            .join('')}Z`;
          return (
            <GroundArea
              key={i}
              d={d}
              data-ground={allowed ? 'allowed' : 'forbidden'}
              fill={allowed ? 'transparent' : 'url(#forbidden)'}
              role="button"
              tabIndex={0}
              style={{ pointerEvents: picking ? 'all' : 'none' }}
              aria-label={`Ground ${i + 1}, ${Math.round(100 * ground.area)} % of the surroundings, ${allowed ? 'may be copied' : 'must not be copied'}`}
              aria-pressed={allowed}
              onPointerDown={(event) => event.button === 0 && event.stopPropagation()}
              onClick={() => toggleGround(bench, repair, ground)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                event.stopPropagation();
                toggleGround(bench, repair, ground);
              }}
            />
          );
        })}
    </>
  );
}

function GuideMark({
  repair,
  viewport,
  table,
  fill,
  guide,
  index,
}: Sight & { readonly fill: FillMethod; readonly guide: Guide; readonly index: number }) {
  const { bench } = useBench();
  const [moved, setMoved] = useState<Guide | null>(null);
  const shown = moved ?? guide;
  const put = (points: Guide['points'] | null): void => {
    const guides = fill.guides.flatMap((g, i) => (i !== index ? [g] : points ? [{ points }] : []));
    void ask(bench, repair, points ? 'Bend a guide' : 'Delete a guide', { guides }).then(() =>
      setMoved(null),
    );
  };
  const d = sampledGuide(shown.points)
    .map((p, k) => {
      const [x, y] = toScreen(viewport, table, p);
      return `${k ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
    })
    .join('');
  return (
    <g data-guide={index + 1}>
      <path d={d} fill="none" stroke="rgb(255 255 255 / 90%)" strokeWidth={3.5} />
      <path d={d} fill="none" stroke={look.done} strokeWidth={1.6} strokeDasharray="10 3" />
      {shown.points.map((point, k) => (
        <GuideHandle
          key={k}
          label={`Guide ${index + 1}, point ${k + 1}`}
          at={point}
          viewport={viewport}
          table={table}
          onMove={(by) => setMoved(bent(guide, k, by))}
          onDrop={(by) => put(bent(guide, k, by).points)}
          onDelete={() => put(null)}
        />
      ))}
    </g>
  );
}

function bent(guide: Guide, at: number, by: Point): Guide {
  return {
    points: guide.points.map((p, k) => (k === at ? [p[0] + by[0], p[1] + by[1]] : p)),
  };
}

const STEPS: Record<string, Point> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function GuideHandle({
  label,
  at,
  viewport,
  table,
  onMove,
  onDrop,
  onDelete,
}: {
  readonly label: string;
  readonly at: Point;
  readonly viewport: Viewport;
  readonly table: Size;
  onMove(by: Point): void;
  onDrop(by: Point): void;
  onDelete(): void;
}) {
  const pull = usePull(onMove, onDrop);
  const [x, y] = toScreen(viewport, table, at);
  return (
    <Handle
      as="circle"
      cx={x}
      cy={y}
      r={5}
      {...pull}
      role="button"
      tabIndex={0}
      aria-label={label}
      data-handle="guide"
      onKeyDown={(event) => {
        const step = STEPS[event.key];
        if (step) onDrop(event.shiftKey ? [10 * step[0], 10 * step[1]] : step);
        else if (event.key === 'Delete' || event.key === 'Backspace') onDelete();
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <title>Drag to bend; Delete takes the guide away</title>
    </Handle>
  );
}

const GroundArea = styled.path`
  stroke: #1f2326;
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
  cursor: pointer;
  &:hover {
    stroke-dasharray: none;
    stroke-width: 2;
  }
  &:focus-visible {
    outline: none;
    stroke: ${look.done};
    stroke-width: 3;
  }
`;
