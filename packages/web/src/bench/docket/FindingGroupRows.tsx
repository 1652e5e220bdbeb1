import type { SurveySettings } from '@tersum/document';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { dismiss, setSurvey } from '../../api/survey.js';
import { Dial } from '../../look/Dial.js';
import { Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { useBench, useBenchState } from '../model/context.js';
import type { FindingGroup } from '../model/findings.js';
import { FINDING_NAMES } from '@tersum/document';
import { mendFindings, trySurvey } from '../model/survey-acts.js';
import { AreaBar } from './AreaBar.js';
import { FindingRow } from './FindingRow.js';
import { useFindingKeys } from './useFindingKeys.js';

/** Rows shown at once; more are shown on request. */
const PAGE = 40;

interface FindingGroupRowsProps {
  readonly group: FindingGroup;
  readonly settings: SurveySettings;
}

/** One kind on the docket: how many, how keenly it is looked for, mend all, and its findings. */
export function FindingGroupRows({ group, settings }: FindingGroupRowsProps) {
  const { bench } = useBench();
  const { kind, open, mended, dismissed } = group;
  const { pictureId, isOpen } = useBenchState((s) => ({
    pictureId: s.pictureId,
    isOpen: s.findingKind === kind,
  }));
  useFindingKeys(open, isOpen);
  const [shown, setShown] = useState(PAGE);
  const [trial, setTrial] = useState<number | null>(null);
  const [many, one] = FINDING_NAMES[kind];
  const sensitivity = trial ?? Math.round(100 * (settings.sensitivity[kind] ?? 0.5));
  const keep = (value: number): void => {
    const next = { ...settings, sensitivity: { ...settings.sensitivity, [kind]: value / 100 } };
    void trySurvey(bench, () => setSurvey(pictureId, next)).then(() => setTrial(null));
  };
  return (
    <Group aria-label={many}>
      <Head data-open={open.length > 0}>
        <Open
          type="button"
          aria-expanded={isOpen}
          onClick={() => bench.set({ findingKind: isOpen ? null : kind, finding: null })}
        >
          {isOpen ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
          <b>{many}</b>
          <Figure>{open.length}</Figure>
          {mended.length > 0 && (
            <small>
              <Figure>{mended.length}</Figure> mended
            </small>
          )}
        </Open>
        {open.length > 0 && kind !== 'stains' && (
          <Push
            aria-label={`Mend all ${many.toLowerCase()}`}
            onPress={() => void mendFindings(bench, open)}
          >
            Mend all
          </Push>
        )}
      </Head>
      {isOpen && (
        <>
          <Keen>
            <Dial
              label="Sensitivity"
              hint="How keenly this kind is looked for; the count and the marks on the picture follow"
              value={sensitivity}
              least={0}
              most={100}
              unit="%"
              onChange={setTrial}
              onDone={keep}
            />
          </Keen>
          <AreaBar kind={kind} settings={settings} />
          {open.slice(0, shown).map((finding, k) => (
            <FindingRow key={finding.id} finding={finding} next={open[k + 1] ?? open[k - 1]} />
          ))}
          {open.length > shown && (
            <More type="button" onClick={() => setShown(shown + PAGE)}>
              {open.length - shown} more
            </More>
          )}
          {mended.slice(0, shown).map((finding) => (
            <FindingRow key={finding.id} finding={finding} next={undefined} mended />
          ))}
          {dismissed.length > 0 && (
            <More
              type="button"
              onClick={() =>
                void trySurvey(bench, () =>
                  dismiss(
                    pictureId,
                    dismissed.map(({ id }) => id),
                    false,
                  ),
                )
              }
            >
              Bring back {dismissed.length} kept as {dismissed.length === 1 ? 'it is' : 'they are'}
            </More>
          )}
          {open.length === 0 && mended.length === 0 && (
            <More as="p">No {one.toLowerCase()} at this sensitivity.</More>
          )}
        </>
      )}
    </Group>
  );
}

const Group = styled.section`
  border-top: 1px solid ${look.hairline};
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  padding: 3px 12px 3px 12px;
  background: ${look.paperDeep};
  border-left: 3px solid transparent;
  &[data-open='true'] {
    border-left-color: ${look.todo};
  }
`;

const Open = styled.button`
  flex: 1;
  min-width: 0;
  min-height: 28px;
  display: flex;
  align-items: center;
  gap: 7px;
  border: 0;
  background: none;
  text-align: left;
  b {
    font-weight: 600;
  }
  small {
    color: ${look.done};
    font-size: 11px;
  }
`;

const Keen = styled.div`
  padding: 6px 20px 4px;
`;

const More = styled.button`
  display: block;
  width: 100%;
  border: 0;
  background: none;
  padding: 7px 20px;
  text-align: left;
  font-size: 12px;
  color: ${look.inkSoft};
  text-decoration: underline;
  text-underline-offset: 2px;
  &:is(p) {
    text-decoration: none;
  }
`;
