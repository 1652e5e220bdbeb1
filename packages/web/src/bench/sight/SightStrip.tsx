import { Contrast } from 'lucide-react';
import { useDeferredValue } from 'react';
import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import { Caption, Choice, Figure, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import { fitted, zoomedAt } from '../table/viewport.js';
import { shownCanvas } from '../model/state.js';

/** How the picture is looked at, and whether what is shown is up to date. */
export function SightStrip() {
  const { bench } = useBench();
  const { zoom, turn, split } = useBenchState((s) => ({
    zoom: s.viewport?.zoom ?? null,
    turn: s.viewport?.turn ?? 0,
    split: s.split !== null,
  }));
  const zoomTo = (wanted: number): void => {
    const { viewport, table } = bench.store.getState();
    if (!viewport) return;
    const middle = [table.width / 2, table.height / 2] as const;
    bench.set({ viewport: zoomedAt(viewport, table, middle, wanted / viewport.zoom) });
  };
  const fit = (): void => {
    const { records, table } = bench.store.getState();
    if (records)
      bench.set({ viewport: fitted(shownCanvas(bench.store.getState(), records.picture), table) });
  };
  return (
    <Strip>
      <Quiet onPress={fit}>Fit</Quiet>
      <Quiet onPress={() => zoomTo(1)}>1:1</Quiet>
      <Quiet onPress={() => zoomTo(2)}>2:1</Quiet>
      <Figure>{zoom === null ? '' : `${(zoom * 100).toFixed(zoom < 0.1 ? 1 : 0)} %`}</Figure>
      {turn !== 0 && <Figure>{turn}°</Figure>}
      <Choice isSelected={split} onChange={(on) => bench.set({ split: on ? 0.5 : null })}>
        Split
      </Choice>
      <Standing />
      <Quiet
        aria-label="Switch the surround between light and dark"
        onPress={() =>
          bench.set({ surround: bench.store.getState().surround === 'light' ? 'dark' : 'light' })
        }
      >
        <Contrast size={15} aria-hidden />
      </Quiet>
    </Strip>
  );
}

/** Whether what is shown is what the records say. */
function Standing() {
  const { busy, computing, preview, open } = useDeferredValue(
    useBenchState((s) => ({
      busy:
        s.computing !== null ||
        s.saving > 0 ||
        (s.view !== null && s.records !== null && s.view.version < s.records.picture.version),
      computing: s.computing ?? 0,
      preview: s.preview !== null,
      open: s.viewport !== null,
    })),
  );
  return (
    <Status role="status">
      {busy ? (
        <ProgressBar aria-label="Computing" value={computing * 100}>
          <Caption>Computing {Math.round(computing * 100)} %</Caption>
          <Bar>
            <div style={{ width: `${computing * 100}%` }} />
          </Bar>
        </ProgressBar>
      ) : (
        <Caption>{preview ? 'Trying out' : open ? 'Up to date' : ''}</Caption>
      )}
    </Status>
  );
}

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 2px 10px;
  border-top: 1px solid ${look.hairline};
  background: ${look.paper};
  ${Figure} {
    min-width: 6ch;
    text-align: right;
    margin: 0 6px;
    color: ${look.inkSoft};
  }
  ${Choice} {
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    min-height: 24px;
  }
`;

const Status = styled.div`
  flex: 1;
  display: flex;
  justify-content: flex-end;
  padding-right: 8px;
  > div {
    display: flex;
    align-items: center;
    gap: 8px;
  }
`;

const Bar = styled.div`
  width: 96px;
  height: 4px;
  background: ${look.hairline};
  div {
    height: 100%;
    background: ${look.todo};
  }
`;
