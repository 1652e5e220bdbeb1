import type { Rect } from '@tersum/core';
import styled from 'styled-components';
import { look } from '../../look/theme.js';
import { useBenchState } from '../model/context.js';
import type { Size, Viewport } from './viewport.js';
import { toScreen } from './viewport.js';

/** Where the chosen tell shows; for a repeat also where the same is seen again, and which belongs to which. */
export function TellMarks() {
  const { viewport, table, tell, hidden } = useBenchState((s) => ({
    viewport: s.viewport,
    table: s.table,
    tell: s.tell,
    hidden: s.asReceived,
  }));
  if (!viewport || !tell || hidden) return null;
  const here = boxOnScreen(viewport, table, tell.box);
  const there = tell.twin && boxOnScreen(viewport, table, tell.twin);
  return (
    <Layer aria-label="Mark of the tell">
      <rect {...here} />
      {there && (
        <>
          <rect {...there} />
          <line
            x1={here.x + here.width / 2}
            y1={here.y + here.height / 2}
            x2={there.x + there.width / 2}
            y2={there.y + there.height / 2}
          />
        </>
      )}
    </Layer>
  );
}

/** A box of the picture's pixels, in px of the table. */
export function boxOnScreen(viewport: Viewport, table: Size, { x, y, width, height }: Rect) {
  const [left, top] = toScreen(viewport, table, [x - 0.5, y - 0.5]);
  const [right, bottom] = toScreen(viewport, table, [x + width - 0.5, y + height - 0.5]);
  return { x: left, y: top, width: right - left, height: bottom - top };
}

const Layer = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  rect,
  line {
    fill: none;
    stroke: ${look.todo};
    stroke-width: 2;
    stroke-dasharray: 2 3;
  }
`;
