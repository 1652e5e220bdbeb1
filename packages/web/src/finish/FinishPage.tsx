import { shownCanvas } from '../bench/model/state.js';
import type { Point } from '@tersum/core';
import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useBench } from '../bench/model/context.js';
import { NoticeLine } from '../bench/NoticeLine.js';
import { Middle, Room } from '../bench/Room.js';
import { Choice, Choices, Toggle } from '../look/parts.js';
import { look } from '../look/theme.js';
import { useHeldKey } from '../look/useHeldKey.js';
import { Histogram } from './card/Histogram.js';
import { StepCard } from './card/StepCard.js';
import { FramePanel } from './frame/FramePanel.js';
import { FinishContext, useFinish, useFinishState } from './model/context.js';
import { Finish } from './model/finish.js';
import { lineAngle, turnedFrame } from './model/framing.js';
import { StepList } from './stack/StepList.js';
import type { Tones } from './view/tone-worker.js';
import { ToneView } from './view/ToneView.js';

/** The finish: tone stack and frame of one picture. */
export function FinishPage() {
  return (
    <Room kind="finish" sides={[280, 300]} narrow={[240, 272]}>
      <FinishOf />
    </Room>
  );
}

function FinishOf() {
  const { bench } = useBench();
  const [search] = useSearchParams();
  const part = search.get('part');
  const finish = useMemo(() => {
    const made = new Finish(bench);
    if (part === 'frame') made.set({ part });
    return made;
  }, [bench, part]);
  return (
    <FinishContext value={finish}>
      <Inside />
    </FinishContext>
  );
}

function Inside() {
  const finish = useFinish();
  const { part, zoom, before, clipping } = useFinishState((s) => s);
  const [tones, setTones] = useState<Tones | null>(null);

  useHeldKey(
    'v',
    useCallback((on: boolean) => finish.set({ before: on }), [finish]),
  );

  const levelled = (from: Point, to: Point): void => {
    const { records } = finish.bench.store.getState();
    finish.set({ hand: 'pan' });
    if (records)
      void finish.keepFrame(
        turnedFrame(
          shownCanvas(finish.bench.store.getState(), records.picture),
          lineAngle(from, to),
        ),
        'Straighten by a line',
      );
  };
  return (
    <>
      <Side>
        <Tabs>
          <Choices
            aria-label="Part of the finish"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[part]}
            onSelectionChange={(keys) =>
              finish.set({ part: [...keys][0] as 'tone' | 'frame', hand: 'pan' })
            }
          >
            <Choice id="tone">Tone</Choice>
            <Choice id="frame">Frame</Choice>
          </Choices>
        </Tabs>
        {part === 'tone' ? <StepList /> : <FramePanel />}
      </Side>
      <Middle>
        <ToneView onTones={setTones} onLevel={levelled} />
        <Bar>
          <Choices
            aria-label="Size on screen"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[zoom]}
            onSelectionChange={(keys) => finish.set({ zoom: [...keys][0] as 'fit' | 'whole' })}
          >
            <Choice id="fit">Fit</Choice>
            <Choice id="whole" isDisabled={part === 'frame'}>
              1 : 1
            </Choice>
          </Choices>
          <Toggle isSelected={before} onChange={(on) => finish.set({ before: on })}>
            Without tone steps
          </Toggle>
          <Toggle isSelected={clipping} onChange={(on) => finish.set({ clipping: on })}>
            Mark what clips
          </Toggle>
        </Bar>
        <NoticeLine />
      </Middle>
      <Side data-right>
        <Histogram tones={tones} />
        {part === 'tone' && <StepCard />}
      </Side>
    </>
  );
}

const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  background: ${look.paper};
  border-right: 1px solid ${look.hairline};
  &[data-right] {
    border-right: 0;
    border-left: 1px solid ${look.hairline};
  }
`;

const Tabs = styled.div`
  padding: 12px 12px 0;
`;

const Bar = styled.div`
  display: flex;
  gap: 10px;
  padding: 8px 12px;
  background: ${look.paper};
  border-top: 1px solid ${look.hairline};
`;
