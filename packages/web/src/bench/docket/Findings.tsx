import { Crosshair, ScanSearch } from 'lucide-react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { beginSurvey, cancelSurvey, setSurvey } from '../../api/survey.js';
import { Choice, Choices, Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Tick } from '../../look/Tick.js';
import { ReferenceLink } from '../../reference/ReferenceLink.js';
import { useBench, useBenchState } from '../model/context.js';
import { timeOf } from '../../look/time.js';
import { trySurvey } from '../model/survey-acts.js';
import { useFindings } from '../model/useFindings.js';
import { Group, GroupHead, Word } from './group.js';
import { FindingGroupRows } from './FindingGroupRows.js';

/** What the survey found: to do by kind, with what may be mended and how long it takes. */
export function Findings() {
  const { bench } = useBench();
  const { survey, groups, records, error } = useFindings();
  const { pictureId, adding } = useBenchState((s) => ({
    pictureId: s.pictureId,
    adding: s.addingFinding,
  }));
  if (!records) return null;
  if (!survey)
    return (
      <Group aria-label="Findings" aria-busy={!error}>
        <GroupHead>
          <h3>Findings</h3>
        </GroupHead>
        {error ? <Word role="alert">{messageOf(error)}</Word> : <Word>Looking them up …</Word>}
      </Group>
    );
  const { settings, state } = survey;
  const open = groups.reduce((sum, g) => sum + g.open.length, 0);
  const byHand = groups.reduce((sum, g) => sum + g.byHand, 0);
  const swept = groups.reduce((sum, g) => sum + g.swept, 0);
  const change = (patch: Partial<typeof settings>): void =>
    void trySurvey(bench, () => setSurvey(pictureId, { ...settings, ...patch }));
  return (
    <Group aria-label="Findings">
      <GroupHead>
        <h3>Findings</h3>
        {state === 'ready' && (
          <span>
            <Figure>{open}</Figure> to do
          </span>
        )}
        {state === 'surveying' ? (
          <Push onPress={() => void trySurvey(bench, () => cancelSurvey(pictureId))}>Cancel</Push>
        ) : (
          <Push onPress={() => void trySurvey(bench, () => beginSurvey(pictureId))}>
            <ScanSearch size={14} aria-hidden /> {state === 'ready' ? 'Survey again' : 'Survey'}
          </Push>
        )}
      </GroupHead>
      {state === 'surveying' && (
        <Progress role="status" aria-label="Surveying the picture">
          <progress max={1} value={survey.share} aria-label="Survey" />
          Looking for specks, lines, creases, losses, ink, mesh …
        </Progress>
      )}
      {state === 'failed' && <Word role="alert">{survey.message}</Word>}
      {state === 'none' && (
        <Word>
          Not surveyed yet. A survey finds and measures what is wrong and says how each thing is
          best mended.
        </Word>
      )}
      {state === 'ready' && (
        <>
          <Policy>
            <Choices
              aria-label="What may be mended"
              selectedKeys={[settings.policy]}
              disallowEmptySelection
              onSelectionChange={(keys) =>
                change({ policy: [...keys][0] === 'picture' ? 'picture' : 'documentary' })
              }
            >
              <Choice id="documentary">Damage</Choice>
              <Choice id="picture">Distractions too</Choice>
            </Choices>
            <Push
              aria-label="Add a finding by a click"
              onPress={() => bench.set({ addingFinding: !adding })}
              data-on={adding}
            >
              <Crosshair size={14} aria-hidden /> {adding ? 'Click it' : 'Add'}
            </Push>
          </Policy>
          <Only>
            <Tick isSelected={settings.onlyShown} onChange={(onlyShown) => change({ onlyShown })}>
              Hide what does not show at {settings.distance / 10}&nbsp;cm
            </Tick>
            <ReferenceLink to="shows">how</ReferenceLink>
          </Only>
          {groups.map((group) => (
            <FindingGroupRows key={group.kind} group={group} settings={settings} />
          ))}
          {open > 0 ? (
            <Sum>
              by hand about <Figure>{timeOf(byHand)}</Figure>, in sweeps{' '}
              <Figure>{timeOf(swept)}</Figure>
            </Sum>
          ) : (
            <Word>
              {groups.some((g) => g.mended.length)
                ? 'Nothing is left to do here.'
                : 'Nothing was found at these sensitivities.'}
            </Word>
          )}
        </>
      )}
    </Group>
  );
}

const Progress = styled.p`
  padding: 0 20px 10px;
  color: ${look.inkSoft};
  font-size: 12px;
  progress {
    display: block;
    width: 100%;
    height: 6px;
    margin-bottom: 4px;
    accent-color: ${look.done};
  }
`;

const Policy = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 0 12px 6px 20px;
  font-size: 12px;
  justify-content: space-between;
  button {
    padding: 0 8px;
  }
  [data-on='true'] {
    border-color: ${look.todo};
    color: ${look.todo};
  }
`;

const Only = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  padding: 2px 12px 8px 20px;
  font-size: 12px;
  color: ${look.inkSoft};
`;

const Sum = styled.p`
  padding: 6px 20px 10px;
  color: ${look.inkSoft};
  font-size: 12px;
  span {
    white-space: nowrap;
  }
`;
