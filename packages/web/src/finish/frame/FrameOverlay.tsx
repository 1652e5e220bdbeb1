import type { Point } from '@tersum/core';
import { useRef } from 'react';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { shownCanvas } from '../../bench/model/state.js';
import { useFinish, useFinishState } from '../model/context.js';
import { movedFrame, wholeFrame, withCorner } from '../model/framing.js';
import type { ScreenPlace } from '../view/place.js';

const CORNERS = ['top left', 'top right', 'bottom right', 'bottom left'] as const;
const STEPS: Record<string, Point> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface FrameOverlayProps {
  readonly at: ScreenPlace;
  readonly room: { readonly width: number; readonly height: number };
}

/** The frame over the picture: corners to drag, thirds inside, what falls away darkened. */
export function FrameOverlay({ at, room }: FrameOverlayProps) {
  const finish = useFinish();
  const free = useFinishState((s) => s.freeCorners);
  const prints = useFinishState((s) => s.prints);
  useFinishState((s) => s.frameDraft);
  const canvas = useBenchState((s) => s.records && shownCanvas(s, s.records.picture));
  useBenchState((s) => s.records?.frames);
  const from = useRef<Point | null>(null);
  if (!canvas) return null;
  const frame = finish.frame() ?? wholeFrame(canvas);
  const quad = frame.quad.map((p) => at.toScreen([p[0], p[1]]));
  const mix = (a: Point, b: Point, t: number): Point => [
    a[0] + (b[0] - a[0]) * t,
    a[1] + (b[1] - a[1]) * t,
  ];
  const [tl, tr, br, bl] = quad as [Point, Point, Point, Point];
  const text = (points: readonly Point[]): string => points.map((p) => p.join(',')).join(' ');
  const tryOut = (next: ReturnType<typeof movedFrame>): void =>
    finish.set({ frameDraft: { ...next, id: 'draft' } });
  const keep = (): void => {
    const draft = finish.store.getState().frameDraft;
    if (draft) void finish.keepFrame(draft, 'Set the frame');
  };
  const local = (event: React.PointerEvent): Point => {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    return at.toPicture([event.clientX - box.left, event.clientY - box.top]);
  };
  return (
    <Layer>
      <path
        className="away"
        d={`M0 0H${room.width}V${room.height}H0Z M${text([tl])} L${text([bl])} L${text([br])} L${text([tr])} Z`}
      />
      <polygon
        points={text(quad as Point[])}
        className="frame"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = local(event);
        }}
        onPointerMove={(event) => {
          if (!from.current) return;
          const now = local(event);
          tryOut(movedFrame(frame, now[0] - from.current[0], now[1] - from.current[1]));
          from.current = now;
        }}
        onPointerUp={() => {
          from.current = null;
          keep();
        }}
      />
      {prints.map((print, k) => {
        const [x, y] = at.toScreen(print[0]);
        return (
          <g key={k} className="print">
            <polygon points={text(print.map((p) => at.toScreen(p)))} />
            <text x={x + 8} y={y + 18}>
              {k + 1}
            </text>
          </g>
        );
      })}
      {[1 / 3, 2 / 3].map((t) => (
        <g key={t} className="thirds">
          <polyline points={text([mix(tl, tr, t), mix(bl, br, t)])} />
          <polyline points={text([mix(tl, bl, t), mix(tr, br, t)])} />
        </g>
      ))}
      {quad.map((p, k) => (
        <rect
          key={CORNERS[k]}
          x={p[0] - 7}
          y={p[1] - 7}
          width={14}
          height={14}
          className="corner"
          tabIndex={0}
          role="slider"
          aria-label={`Frame corner, ${CORNERS[k]}`}
          aria-valuenow={Math.round(frame.quad[k]![0])}
          aria-valuetext={`${Math.round(frame.quad[k]![0])}, ${Math.round(frame.quad[k]![1])} px`}
          onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
          onPointerMove={(event) => {
            if (event.currentTarget.hasPointerCapture(event.pointerId))
              tryOut(withCorner(frame, k, local(event), free));
          }}
          onPointerUp={keep}
          onKeyDown={(event) => {
            const step = STEPS[event.key];
            if (!step) return;
            event.preventDefault();
            const by = event.shiftKey ? 10 : 1;
            const [x, y] = frame.quad[k]!;
            void finish.keepFrame(
              withCorner(frame, k, [x + step[0] * by, y + step[1] * by], free),
              'Set the frame',
            );
          }}
        />
      ))}
    </Layer>
  );
}

const Layer = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  .away {
    fill: rgb(31 35 38 / 55%);
    fill-rule: evenodd;
    pointer-events: none;
  }
  .frame {
    fill: transparent;
    stroke: #fcfaf6;
    stroke-width: 1.5;
    cursor: move;
  }
  .thirds polyline {
    stroke: rgb(252 250 246 / 50%);
    pointer-events: none;
  }
  .print {
    pointer-events: none;
    polygon {
      fill: none;
      stroke: #1f6f64;
      stroke-width: 2;
    }
    text {
      fill: #1f6f64;
      font-weight: 700;
    }
  }
  .corner {
    fill: #fcfaf6;
    stroke: #1f2326;
    cursor: crosshair;
    outline-offset: 2px;
  }
`;
