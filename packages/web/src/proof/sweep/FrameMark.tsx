import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { shownCanvas } from '../../bench/model/state.js';
import { boxOnScreen } from '../../bench/table/TellMarks.js';
import { useProofState } from '../model.js';
import { framesOf } from './frames.js';

/** Darkens what lies outside of the frame that is looked at. */
export function FrameMark() {
  const at = useProofState((s) => s.frame);
  const { canvas, viewport, table } = useBenchState((s) => ({
    canvas: s.records && shownCanvas(s, s.records.picture),
    viewport: s.viewport,
    table: s.table,
  }));
  if (at === null || !canvas || !viewport) return null;
  const frame = framesOf(canvas)[at];
  if (!frame) return null;
  const { x, y, width, height } = boxOnScreen(viewport, table, frame);
  return (
    <Layer aria-hidden>
      <path
        fillRule="evenodd"
        d={`M0 0H${table.width}V${table.height}H0Z M${x} ${y}v${height}h${width}v${-height}Z`}
      />
    </Layer>
  );
}

const Layer = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  fill: rgb(31 35 38 / 45%);
`;
