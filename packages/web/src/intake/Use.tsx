import { densityFor, scanDensity, smallestSeen, USUAL_PPI } from '@tersum/core';
import type { Picture, SurveySettings } from '@tersum/document';
import styled from 'styled-components';
import { messageOf } from '../api/client.js';
import { setSurvey, useSurvey } from '../api/survey.js';
import { useBench } from '../bench/model/context.js';
import { Dial } from '../look/Dial.js';
import { OneOf } from '../look/OneOf.js';
import { Caption, Figure } from '../look/parts.js';
import { look } from '../look/theme.js';
import { ReferenceLink } from '../reference/ReferenceLink.js';

/** How the picture will be used, and what may be done to it: what shows and what is found follow from it. */
export function Use({ picture }: { readonly picture: Picture }) {
  const { bench } = useBench();
  const { data: survey } = useSurvey(picture.id);
  if (!survey) return null;
  const { settings } = survey;
  const { policy, enlargement, distance } = settings;
  const change = (patch: Partial<SurveySettings>): void => {
    setSurvey(picture.id, { ...settings, ...patch }).catch((error: unknown) =>
      bench.set({ notice: messageOf(error) }),
    );
  };
  const ppi = picture.ppi ?? USUAL_PPI;
  const inches = (picture.width / ppi) * enlargement;
  const left = densityFor(picture.width, inches);
  const needed = scanDensity(300, enlargement);
  return (
    <Part aria-label="Intended use">
      <h2>
        Intended use <ReferenceLink to="shows">how</ReferenceLink>
      </h2>
      <Dial
        label="Enlarged"
        unit="×"
        least={0.25}
        most={12}
        step={0.05}
        bent
        value={enlargement}
        onChange={() => undefined}
        onDone={(v) => change({ enlargement: v })}
      />
      <Dial
        label="Seen from"
        unit="cm"
        least={10}
        most={500}
        step={5}
        bent
        value={distance / 10}
        onChange={() => undefined}
        onDone={(v) => change({ distance: 10 * v })}
      />
      <dl>
        <dt>Print</dt>
        <dd>
          <Figure>
            {Math.round(inches * 25.4)} × {Math.round((picture.height / ppi) * enlargement * 25.4)}{' '}
            mm
          </Figure>
        </dd>
        <dt>Leaves</dt>
        <dd>
          <Figure>{Math.round(left)} ppi</Figure>
        </dd>
        <dt>Scan for 300 ppi</dt>
        <dd>
          <Figure>{Math.round(needed)} ppi</Figure>
        </dd>
        <dt>Least that shows</dt>
        <dd>
          <Figure>{((smallestSeen(distance) * ppi) / 25.4 / enlargement).toFixed(1)} px</Figure>
        </dd>
      </dl>
      {picture.ppi !== null && left < 150 && (
        <Caption>
          Under 150 ppi pixels begin to show at reading distance. Scan finer, or print smaller.
        </Caption>
      )}
      <h2>What may be mended</h2>
      <OneOf
        label="What may be mended"
        options={{ documentary: 'Damage', picture: 'Distractions too' }}
        value={policy}
        onChange={(next) => change({ policy: next })}
      />
      <Caption>
        {policy === 'documentary'
          ? 'Nothing that stood before the camera may go.'
          : 'What distracts may go as well; the report says so.'}
      </Caption>
    </Part>
  );
}

const Part = styled.section`
  padding: 14px 16px 24px;
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 8px;
  h2 {
    font-size: 13px;
    font-weight: 600;
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  [role='radiogroup'] {
    align-self: flex-start;
  }
  dl {
    margin: 0 0 8px;
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
  }
  dt {
    color: ${look.inkSoft};
  }
  dd {
    margin: 0;
    text-align: right;
  }
`;
