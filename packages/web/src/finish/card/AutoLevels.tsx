import { CLIP_SHARE } from '@tersum/core';
import { useState } from 'react';
import styled from 'styled-components';
import { Dial } from '../../look/Dial.js';
import { Caption, Push, Toggle } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { ReferenceLink } from '../../reference/ReferenceLink.js';
import { useFinish, useFinishState } from '../model/context.js';

const POINTS = { white: 'Paper white', grey: 'Grey', black: 'Black' } as const;

/** Levels by themselves: to a share that may clip, or from places that should be neutral. */
export function AutoLevels() {
  const finish = useFinish();
  const hand = useFinishState((s) => s.hand);
  const [percent, setPercent] = useState(100 * CLIP_SHARE);
  return (
    <Part>
      <Dial
        label="May clip at each end"
        least={0}
        most={2}
        step={0.01}
        unit="%"
        bent
        value={percent}
        onChange={setPercent}
      />
      <Line>
        <Push onPress={() => void finish.autoLevels(percent / 100, false)}>Automatic</Push>
        <Push onPress={() => void finish.autoLevels(percent / 100, true)}>Each channel</Push>
        <ReferenceLink to="clip">how</ReferenceLink>
      </Line>
      <Line>
        {(Object.keys(POINTS) as (keyof typeof POINTS)[]).map((point) => (
          <Toggle
            key={point}
            isSelected={hand === point}
            onChange={(on) => finish.set({ hand: on ? point : 'pan' })}
          >
            {POINTS[point]}
          </Toggle>
        ))}
      </Line>
      <Caption>
        {hand === 'white' || hand === 'grey' || hand === 'black'
          ? 'Click a place of the picture that should be so.'
          : 'A cast goes when a place that should be neutral is clicked.'}
      </Caption>
    </Part>
  );
}

const Part = styled.div`
  display: grid;
  gap: 8px;
  padding-top: 10px;
  border-top: 1px solid ${look.hairline};
`;

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
`;
