import styled from 'styled-components';
import { useBenchState } from '../model/context.js';
import { shapeNow } from '../model/state.js';
import { toScreen } from './viewport.js';

/** True width (outer ring) and softness (inner ring) of what a press would lay down. */
export function Cursor() {
  const { pointer, viewport, table, tool, shape, picking } = useBenchState((s) => ({
    pointer: s.pointer,
    viewport: s.viewport,
    table: s.table,
    tool: s.tool,
    shape: shapeNow(s),
    picking: s.pickingDonor,
  }));
  if (!pointer || !viewport) return null;
  const [x, y] = toScreen(viewport, table, pointer);
  const radius = (tool.width / 2) * viewport.zoom;
  const drawn = shape === 'dab' || shape === 'stroke' || shape === 'chain';
  return (
    <Layer aria-hidden>
      {picking ? (
        <g transform={`translate(${x} ${y})`}>
          <path d="M-14 -8v-6h6M8 -14h6v6M14 8v6h-6M-8 14h-6v-6" className="halo" />
          <path d="M-14 -8v-6h6M8 -14h6v6M14 8v6h-6M-8 14h-6v-6" className="line" />
        </g>
      ) : (
        drawn && (
          <g>
            <circle cx={x} cy={y} r={radius} className="halo" />
            <circle cx={x} cy={y} r={radius} className="line" />
            {tool.softness > 0.02 && (
              <circle cx={x} cy={y} r={radius * (1 - tool.softness)} className="inner" />
            )}
          </g>
        )
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
  .halo {
    stroke: rgb(255 255 255 / 85%);
    stroke-width: 2.5;
  }
  .line {
    stroke: #1f2326;
    stroke-width: 1;
  }
  .inner {
    stroke: #1f2326;
    stroke-width: 1;
    stroke-dasharray: 2 3;
  }
`;
