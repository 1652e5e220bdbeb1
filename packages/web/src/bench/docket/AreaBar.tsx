import type { FindingKind } from '@tersum/core';
import type { SurveySettings } from '@tersum/document';
import { FINDING_NAMES } from '@tersum/document';
import styled from 'styled-components';
import { setSurvey } from '../../api/survey.js';
import { Figure, Quiet } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import type { Marking } from '../model/state.js';
import { trySurvey } from '../model/survey-acts.js';

interface AreaBarProps {
  readonly kind: FindingKind;
  readonly settings: SurveySettings;
}

/** Areas to which a kind is limited or that it is kept off, and for pulls the subject: drawn round on the picture. */
export function AreaBar({ kind, settings }: AreaBarProps) {
  const { bench } = useBench();
  const { pictureId, marking } = useBenchState((s) => ({
    pictureId: s.pictureId,
    marking: s.marking,
  }));
  const [many] = FINDING_NAMES[kind];
  const own = settings.areas.filter((area) => area.kind === kind);
  const change = (patch: Partial<SurveySettings>): void =>
    void trySurvey(bench, () => setSurvey(pictureId, { ...settings, ...patch }));
  const hand = (next: Marking, label: string, words: string) => {
    const on = JSON.stringify(marking) === JSON.stringify(next);
    return (
      <Quiet
        aria-label={`${label}: ${many.toLowerCase()}`}
        aria-pressed={on}
        data-on={on}
        onPress={() => bench.set({ marking: on ? null : next, addingFinding: false })}
      >
        {on ? 'Draw round it' : words}
      </Quiet>
    );
  };
  return (
    <Bar>
      {hand({ kind, only: true }, 'Look only within an area', 'Only within')}
      {hand({ kind, only: false }, 'Keep off an area', 'Keep off')}
      {own.length > 0 && (
        <Quiet
          aria-label={`Clear the areas: ${many.toLowerCase()}`}
          onPress={() => change({ areas: settings.areas.filter((area) => area.kind !== kind) })}
        >
          Clear <Figure>{own.length}</Figure>
        </Quiet>
      )}
      {kind === 'pulls' && hand('subject', 'Mark the subject', 'Subject')}
      {kind === 'pulls' && settings.subject && (
        <Quiet onPress={() => change({ subject: null })}>Forget the subject</Quiet>
      )}
    </Bar>
  );
}

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  padding: 0 12px 4px 12px;
  button {
    font-size: 12px;
    min-height: 26px;
    padding: 0 8px;
  }
  [data-on='true'] {
    color: ${look.todo};
  }
`;
