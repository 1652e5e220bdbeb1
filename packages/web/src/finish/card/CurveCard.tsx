import type { Point, ToneAct, ToneActOf } from '@tersum/core';
import { curveThrough } from '@tersum/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { Choice, Choices } from '../../look/parts.js';
import { look } from '../../look/theme.js';

interface CurveCardProps {
  readonly act: ToneActOf<'curve'>;
  onTry(act: ToneAct): void;
  onKeep(act: ToneAct): void;
}

const SIDE = 230;
const CHANNELS = ['all', 'red', 'green', 'blue'] as const;
const KEYS: Record<string, Point> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** A curve whose points are dragged or moved by arrow keys; a click on the curve adds one, Delete takes it away. */
export function CurveCard({ act, onTry, onKeep }: CurveCardProps) {
  const svg = useRef<SVGSVGElement>(null);
  const f = curveThrough(act.points);
  const path = Array.from(
    { length: 61 },
    (_, k) => `${((k / 60) * SIDE).toFixed(1)},${((1 - f(k / 60)) * SIDE).toFixed(1)}`,
  );
  const place = (event: { clientX: number; clientY: number }): Point => {
    const box = svg.current!.getBoundingClientRect();
    return [
      clamp((event.clientX - box.left) / box.width),
      clamp(1 - (event.clientY - box.top) / box.height),
    ];
  };
  const moved = (k: number, to: Point): ToneAct => ({
    ...act,
    points: act.points.map((p, i): Point => {
      if (i !== k) return p;
      const low = act.points[k - 1]?.[0] ?? -0.01;
      const high = act.points[k + 1]?.[0] ?? 1.01;
      return [clamp(Math.min(high - 0.01, Math.max(low + 0.01, to[0]))), clamp(to[1])];
    }),
  });
  const add = (at: Point): void => {
    if (act.points.length >= 16) return;
    onKeep({ ...act, points: [...act.points, at].sort((a, b) => a[0] - b[0]) });
  };
  return (
    <>
      <Choices
        aria-label="Channel of the curve"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[act.channel]}
        onSelectionChange={(keys) =>
          onKeep({ ...act, channel: [...keys][0] as typeof act.channel })
        }
      >
        {CHANNELS.map((c) => (
          <Choice key={c} id={c}>
            {c[0]!.toUpperCase() + c.slice(1)}
          </Choice>
        ))}
      </Choices>
      <Sheet ref={svg} viewBox={`0 0 ${SIDE} ${SIDE}`} aria-label="Curve">
        {[0.25, 0.5, 0.75].map((t) => (
          <path key={t} d={`M0 ${t * SIDE}H${SIDE}M${t * SIDE} 0V${SIDE}`} className="grid" />
        ))}
        <polyline
          points={path.join(' ')}
          className="curve"
          onPointerDown={(event) => add(place(event))}
        />
        {act.points.map((p, k) => (
          <circle
            key={k}
            cx={p[0] * SIDE}
            cy={(1 - p[1]) * SIDE}
            r={6}
            tabIndex={0}
            role="slider"
            aria-label={`Curve point ${k + 1}`}
            aria-valuenow={Math.round(p[1] * 255)}
            aria-valuetext={`${Math.round(p[0] * 255)} becomes ${Math.round(p[1] * 255)}`}
            onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
            onPointerMove={(event) => {
              if (event.currentTarget.hasPointerCapture(event.pointerId))
                onTry(moved(k, place(event)));
            }}
            onPointerUp={(event) => onKeep(moved(k, place(event)))}
            onKeyDown={(event) => {
              if (event.key === 'Delete' && act.points.length > 2)
                return onKeep({ ...act, points: act.points.filter((_, i) => i !== k) });
              const by = KEYS[event.key];
              if (!by) return;
              event.preventDefault();
              const step = (event.shiftKey ? 10 : 1) / 255;
              onKeep(moved(k, [p[0] + by[0] * step, p[1] + by[1] * step]));
            }}
          />
        ))}
      </Sheet>
    </>
  );
}

function clamp(v: number): number {
  return Math.min(1, Math.max(0, v));
}

const Sheet = styled.svg`
  width: 100%;
  background: ${look.paperHigh};
  border: 1px solid ${look.hairline};
  overflow: visible;
  touch-action: none;
  .grid {
    stroke: ${look.hairline};
    fill: none;
  }
  .curve {
    fill: none;
    stroke: ${look.ink};
    stroke-width: 2;
    cursor: copy;
  }
  circle {
    fill: ${look.paper};
    stroke: ${look.done};
    stroke-width: 2;
    cursor: move;
  }
`;
