import styled from 'styled-components';
import { useBenchState } from '../model/context.js';
import { shapeNow } from '../model/state.js';
import { toScreen } from './viewport.js';

/** Half the room that the brackets of a donor being picked take, CSS px. */
const BRACKETS = 16;

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
  const ring = ['dab', 'stroke', 'chain'].includes(shape);
  if (!picking && !ring) return null;
  const half = picking ? BRACKETS : Math.ceil(radius) + 2;
  // A small drawing that is moved, instead of a large one that is drawn again at every move.
  return (
    <Layer
      aria-hidden
      width={2 * half}
      height={2 * half}
      viewBox={`${-half} ${-half} ${2 * half} ${2 * half}`}
      style={{ transform: `translate(${x - half}px, ${y - half}px)` }}
    >
      {picking ? (
        <>
          <path d="M-14 -8v-6h6M8 -14h6v6M14 8v6h-6M-8 14h-6v-6" className="halo" />
          <path d="M-14 -8v-6h6M8 -14h6v6M14 8v6h-6M-8 14h-6v-6" className="line" />
        </>
      ) : (
        <>
          <circle r={radius} className="halo" />
          <circle r={radius} className="line" />
          {tool.softness > 0.02 && <circle r={radius * (1 - tool.softness)} className="inner" />}
        </>
      )}
    </Layer>
  );
}

const Layer = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  pointer-events: none;
  will-change: transform;
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
