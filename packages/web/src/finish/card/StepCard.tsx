import type { ToneActOf } from '@tersum/core';
import { overshootOf, tonedColour } from '@tersum/core';
import type { Tone } from '@tersum/document';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { Dial } from '../../look/Dial.js';
import { Caption, Choice, Choices, Figure, Push, Toggle } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { ACTS } from '../model/acts.js';
import { useFinish, useFinishState } from '../model/context.js';
import { CurveCard } from './CurveCard.js';
import { LevelsCard } from './LevelsCard.js';
import { LookCard } from './LookCard.js';
import { MaskLine } from './MaskLine.js';

/** The step in hand: its dials, where it works, how strongly. */
export function StepCard() {
  const finish = useFinish();
  useBenchState((s) => s.records?.tones);
  useFinishState((s) => [s.selected, s.draft]);
  const step = finish.selected();
  if (!step)
    return (
      <Hint>
        Pick a step to change it, or add one. Steps work from top to bottom and can be changed at
        any time.
      </Hint>
    );
  const { name, use, fields } = ACTS[step.act.kind];
  const tryAct = (act: Tone['act']): void => finish.tryOut({ ...step, act });
  const keepAct = (act: Tone['act']): void => void finish.keep({ ...step, act });
  return (
    <Card aria-label={name}>
      <div>
        <h2>{name}</h2>
        <Caption>{use}</Caption>
      </div>
      {step.act.kind === 'levels' && <LevelsCard act={step.act} onTry={tryAct} onKeep={keepAct} />}
      {step.act.kind === 'curve' && <CurveCard act={step.act} onTry={tryAct} onKeep={keepAct} />}
      {step.act.kind === 'focus' && <FocusShape act={step.act} onKeep={keepAct} />}
      {fields.map((f) => (
        <Dial
          key={f.label}
          label={f.label}
          least={f.least}
          most={f.most}
          step={f.step}
          unit={f.unit}
          value={round(f.get(step.act), f.step)}
          {...(f.bent ? { bent: true } : {})}
          onChange={(v) => tryAct(f.set(step.act, v))}
          onDone={(v) => keepAct(f.set(step.act, v))}
        />
      ))}
      {step.act.kind === 'strokes' && <StrokeTools act={step.act} />}
      {step.act.kind === 'toning' && <TintTools act={step.act} />}
      {step.act.kind === 'look' && <LookCard step={step} />}
      {step.act.kind === 'sharpen' && <Halo act={step.act} />}
      <Dial
        label="Strength of the step"
        least={0}
        most={100}
        unit="%"
        value={Math.round(step.strength * 100)}
        onChange={(v) => finish.tryOut({ ...step, strength: v / 100 })}
        onDone={(v) => void finish.keep({ ...step, strength: v / 100 }, 'Strength of a tone step')}
      />
      <MaskLine step={step} />
    </Card>
  );
}

function round(value: number, step: number): number {
  return Math.round(value / step) * step;
}

function StrokeTools({ act }: { readonly act: ToneActOf<'strokes'> }) {
  const finish = useFinish();
  const { hand, width } = useFinishState((s) => s);
  return (
    <>
      <Dial
        label="Width of the strokes"
        least={4}
        most={1200}
        unit="px"
        bent
        value={width}
        onChange={(v) => finish.set({ width: v })}
      />
      <Line>
        <Toggle
          isSelected={hand === 'stroke'}
          onChange={(on) => finish.set({ hand: on ? 'stroke' : 'pan' })}
        >
          Draw strokes
        </Toggle>
        <Figure>{act.strokes.length} drawn</Figure>
      </Line>
    </>
  );
}

/** Shows the hue on its tones; the tint can be measured from the picture's own paper. */
function TintTools({ act }: { readonly act: ToneActOf<'toning'> }) {
  const finish = useFinish();
  const { hand } = useFinishState((s) => s);
  return (
    <>
      <Ramp aria-hidden>
        {Array.from({ length: 11 }, (_, k) => {
          const [r, g, b] = tonedColour(k * 10, act.hue, act.chroma).map((v) =>
            Math.round(v * 255),
          );
          return <span key={k} style={{ background: `rgb(${r} ${g} ${b})` }} />;
        })}
      </Ramp>
      <Toggle
        isSelected={hand === 'tint'}
        onChange={(on) => finish.set({ hand: on ? 'tint' : 'pan' })}
      >
        Take the tint from the picture
      </Toggle>
    </>
  );
}

/** The measured halo beside its limit line. */
function Halo({ act }: { readonly act: ToneActOf<'sharpen'> }) {
  const halo = overshootOf(act.radius, act.amount) * 100;
  const over = halo > 100 * act.limit;
  return (
    <Caption>
      A full step would overshoot by <Figure>{halo.toFixed(1)} %</Figure>
      {over ? (
        <>
          , held at <Figure>{(100 * act.limit).toFixed(1)} %</Figure>
        </>
      ) : (
        ', under the limit'
      )}
      .
    </Caption>
  );
}

function FocusShape({
  act,
  onKeep,
}: {
  readonly act: ToneActOf<'focus'>;
  onKeep(act: Tone['act']): void;
}) {
  const finish = useFinish();
  const { hand } = useFinishState((s) => s);
  return (
    <Line>
      <Choices
        aria-label="Shape of the sharp place"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[act.shape]}
        onSelectionChange={(keys) => onKeep({ ...act, shape: [...keys][0] as 'band' | 'round' })}
      >
        <Choice id="round">Round</Choice>
        <Choice id="band">Band</Choice>
      </Choices>
      <Push onPress={() => finish.set({ hand: hand === 'place' ? 'pan' : 'place' })}>
        {hand === 'place' ? 'Click the picture' : 'Place it'}
      </Push>
    </Line>
  );
}

const Card = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  > button {
    justify-self: start;
  }
  gap: 10px;
  padding: 12px 14px 20px;
  h2 {
    font-size: 15px;
    font-weight: 600;
  }
`;

const Hint = styled.p`
  padding: 12px 14px;
  color: ${look.inkSoft};
`;

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
`;

const Ramp = styled.div`
  display: flex;
  height: 22px;
  span {
    flex: 1;
  }
`;
