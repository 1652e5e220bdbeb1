import styled from 'styled-components';
import { useSurvey } from '../api/survey.js';
import { useBench, useBenchState } from '../bench/model/context.js';
import { fitted, zoomedAt } from '../bench/table/viewport.js';
import { OneOf } from '../look/OneOf.js';
import { Dial } from '../look/Dial.js';
import { Caption, Figure, Quiet, Toggle } from '../look/parts.js';
import { look } from '../look/theme.js';
import { COMPARE_WAYS, useProofState, useProofStore } from './model.js';
import { zoomAtUse } from './use-zoom.js';
import { shownCanvas } from '../bench/model/state.js';

/** How the picture is compared, and from how near. */
export function CompareStrip() {
  const { bench } = useBench();
  const proof = useProofStore();
  const { way, onion, doublings, heat, asSeen } = useProofState((s) => s);
  const { pictureId, picture, zoom } = useBenchState((s) => ({
    pictureId: s.pictureId,
    picture: s.records?.picture ?? null,
    zoom: s.viewport?.zoom ?? null,
  }));
  const { data: survey } = useSurvey(pictureId);
  const use = picture && survey ? zoomAtUse(survey.settings, picture) : null;
  const zoomTo = (wanted: number): void => {
    const { viewport, table } = bench.store.getState();
    if (!viewport) return;
    const middle = [table.width / 2, table.height / 2] as const;
    bench.set({ viewport: zoomedAt(viewport, table, middle, wanted / viewport.zoom) });
  };
  return (
    <Strip>
      <OneOf
        label="How to compare"
        options={COMPARE_WAYS}
        value={way}
        onChange={(next) => proof.setState({ way: next, received: false })}
      />
      {way === 'onion' && (
        <Dial
          label="As received"
          unit="%"
          least={0}
          most={100}
          value={Math.round(100 * onion)}
          onChange={(v) => proof.setState({ onion: v / 100 })}
        />
      )}
      {way === 'difference' && (
        <Dial
          label="Amplified"
          unit="× 2"
          least={0}
          most={6}
          value={doublings}
          onChange={(v) => proof.setState({ doublings: v })}
        />
      )}
      <Rest>
        <Toggle isSelected={heat} onChange={(on) => proof.setState({ heat: on })}>
          Heat
        </Toggle>
        <Quiet
          onPress={() => {
            const { records, table } = bench.store.getState();
            if (records)
              bench.set({
                viewport: fitted(shownCanvas(bench.store.getState(), records.picture), table),
              });
          }}
        >
          Fit
        </Quiet>
        <Quiet onPress={() => zoomTo(1)}>1:1</Quiet>
        {use && (
          <Quiet
            onPress={() => zoomTo(use.zoom)}
            aria-label={`At use, as it is seen from ${use.distance} cm`}
          >
            At use
          </Quiet>
        )}
        {use && (
          <Toggle isSelected={asSeen} onChange={(on) => proof.setState({ asSeen: on })}>
            As the eye sees it
          </Toggle>
        )}
        <Figure>{zoom === null ? '' : `${Math.round(zoom * 100)} %`}</Figure>
      </Rest>
      {use && zoom !== null && (asSeen || Math.abs(zoom - use.zoom) < 1e-6) && (
        <Caption>
          {asSeen
            ? `Blurred as eyes blur a print of ${use.width} mm from ${use.distance} cm: what does not show here will not show there.`
            : `As a print of ${use.width} mm looks from ${use.distance} cm, when you sit ${use.eye} cm from the screen.`}
        </Caption>
      )}
    </Strip>
  );
}

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 6px 12px;
  border-top: 1px solid ${look.hairline};
  background: ${look.paper};
`;

const Rest = styled.div`
  display: flex;
  align-items: center;
  gap: 4px;
  margin-left: auto;
`;
