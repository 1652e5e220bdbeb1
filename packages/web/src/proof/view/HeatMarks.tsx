import styled from 'styled-components';
import { useProof } from '../../api/proof.js';
import { useBenchState } from '../../bench/model/context.js';
import { farBeyond } from '../../bench/model/told.js';
import { boxOnScreen } from '../../bench/table/TellMarks.js';
import { look } from '../../look/theme.js';
import { useProofState } from '../model.js';

/** All tells over the picture, the further beyond the limit the denser. */
export function HeatMarks() {
  const heat = useProofState((s) => s.heat);
  const { pictureId, viewport, table } = useBenchState((s) => ({
    pictureId: s.pictureId,
    viewport: s.viewport,
    table: s.table,
  }));
  const { data } = useProof(pictureId, false);
  if (!heat || !viewport || !data?.proof) return null;
  return (
    <Layer aria-label="Heat of the tells">
      {data.proof.tells
        .filter((t) => !t.faint && !t.stands)
        .map((tell, k) => (
          <rect
            key={k}
            {...boxOnScreen(viewport, table, tell.box)}
            fillOpacity={Math.min(0.7, 0.2 + 0.4 * farBeyond(tell))}
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
  pointer-events: none;
  fill: ${look.todo};
`;
