import type { Point, ToneStroke } from '@tersum/core';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { useFinish, useFinishState } from '../model/context.js';
import type { ScreenPlace } from './place.js';

/** What is being drawn, and where the step in hand works. */
export function DrawnOverlay({
  path,
  at,
}: {
  readonly path: readonly Point[];
  readonly at: ScreenPlace;
}) {
  const finish = useFinish();
  const { hand, width } = useFinishState((s) => s);
  // Drawn again when the records change.
  useBenchState((s) => s.records);
  const step = finish.selected();
  const line = (points: readonly Point[]): string =>
    points
      .map((p) =>
        at
          .toScreen(p)
          .map((v) => v.toFixed(1))
          .join(','),
      )
      .join(' ');
  const stroke = ({ points, width }: ToneStroke, k: number) => (
    <polyline
      key={k}
      points={line(points.length > 1 ? points : [...points, ...points])}
      strokeWidth={width * at.zoom}
      className="laid"
    />
  );
  const mask = hand === 'mask' ? step?.mask : null;
  const brush = hand === 'stroke' || mask?.kind === 'painted';
  return (
    <Layer aria-hidden>
      {hand === 'stroke' && step?.act.kind === 'strokes' && step.act.strokes.map(stroke)}
      {mask?.kind === 'painted' && mask.strokes.map(stroke)}
      {mask?.kind === 'outline' && !path.length && (
        <polygon points={line(mask.points)} className="edge" />
      )}
      {mask?.kind === 'gradient' && !path.length && (
        <polyline points={line([mask.from, mask.to])} className="edge" />
      )}
      {step?.act.kind === 'focus' && hand === 'place' && (
        <circle
          cx={at.toScreen(step.act.at)[0]}
          cy={at.toScreen(step.act.at)[1]}
          r={Math.max(4, step.act.sharp * at.zoom)}
          className="edge"
        />
      )}
      {path.length > 0 && hand !== 'pan' && (
        <polyline
          points={line(path)}
          className={brush ? 'laid' : 'edge'}
          strokeWidth={brush ? width * at.zoom : undefined}
        />
      )}
    </Layer>
  );
}

const Layer = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  fill: none;
  .laid {
    stroke: rgb(246 243 236 / 38%);
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .edge {
    stroke: #fcfaf6;
    stroke-width: 1.5;
    stroke-dasharray: 5 3;
    paint-order: stroke;
    filter: drop-shadow(0 0 1px #000);
  }
`;
