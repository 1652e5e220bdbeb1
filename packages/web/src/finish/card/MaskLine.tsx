import type { ToneMask } from '@tersum/core';
import type { Tone } from '@tersum/document';
import styled from 'styled-components';
import { useBenchState } from '../../bench/model/context.js';
import { Dial } from '../../look/Dial.js';
import { Caption, Choice, Choices, Toggle } from '../../look/parts.js';
import { useFinish, useFinishState } from '../model/context.js';

const WAYS = {
  everywhere: 'All',
  outline: 'Outline',
  gradient: 'Gradient',
  painted: 'Painted',
} as const;
type Way = keyof typeof WAYS;

/** Feather of a soft selection as a share of the long side: common practice, no source. */
const FEATHER = 0.0375;

const TO_DO: Record<Exclude<Way, 'everywhere'>, string> = {
  outline: 'Draw round the place on the picture.',
  gradient: 'Drag from where it should not work to where it should.',
  painted: 'Paint over the places on the picture.',
};

/** Where a step works. */
export function MaskLine({ step }: { readonly step: Tone }) {
  const finish = useFinish();
  const hand = useFinishState((s) => s.hand);
  const width = useFinishState((s) => s.width);
  const picture = useBenchState((s) => s.records?.picture);
  if (!picture) return null;
  const { mask } = step;
  const way: Way = mask?.kind ?? 'everywhere';
  const keep = (next: ToneMask | null): void =>
    void finish.keep({ ...step, mask: next }, 'Where a tone step works');
  const choose = (next: Way): void => {
    keep(freshMask(next, picture));
    finish.set({ hand: next === 'everywhere' ? 'pan' : 'mask' });
  };
  return (
    <Where>
      <Caption>Where it works</Caption>
      <Choices
        aria-label="Where it works"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[way]}
        onSelectionChange={(keys) => choose([...keys][0] as Way)}
      >
        {Object.entries(WAYS).map(([id, name]) => (
          <Choice key={id} id={id}>
            {name}
          </Choice>
        ))}
      </Choices>
      {mask && (
        <>
          <Line>
            <Toggle
              isSelected={hand === 'mask'}
              onChange={(on) => finish.set({ hand: on ? 'mask' : 'pan' })}
            >
              Draw it
            </Toggle>
            <Toggle isSelected={mask.inverted} onChange={(inverted) => keep({ ...mask, inverted })}>
              Other way round
            </Toggle>
          </Line>
          {hand === 'mask' && <Caption>{TO_DO[mask.kind]}</Caption>}
          {mask.kind === 'painted' && (
            <Dial
              label="Width of the brush"
              least={4}
              most={1200}
              unit="px"
              bent
              value={width}
              onChange={(v) => finish.set({ width: v })}
            />
          )}
          {mask.kind !== 'gradient' && (
            <Dial
              label="Feather"
              least={0}
              most={600}
              unit="px"
              bent
              hint="About 3.5 to 4 % of the long side is usual."
              value={Math.round(mask.feather)}
              onChange={(feather) => finish.tryOut({ ...step, mask: { ...mask, feather } })}
              onDone={(feather) => keep({ ...mask, feather })}
            />
          )}
        </>
      )}
    </Where>
  );
}

/** A mask to begin with: the middle of the picture, or from top to bottom. */
function freshMask(
  way: Way,
  { width, height }: { readonly width: number; readonly height: number },
): ToneMask | null {
  const feather = Math.round(FEATHER * Math.max(width, height));
  const at = (x: number, y: number): [number, number] => [
    Math.round(x * width),
    Math.round(y * height),
  ];
  if (way === 'everywhere') return null;
  if (way === 'gradient')
    return { kind: way, inverted: false, from: at(0.5, 0.9), to: at(0.5, 0.1) };
  if (way === 'painted') return { kind: way, inverted: false, strokes: [], feather };
  const points = [at(0.3, 0.3), at(0.7, 0.3), at(0.7, 0.7), at(0.3, 0.7)];
  return { kind: way, inverted: false, points, feather };
}

const Where = styled.div`
  display: grid;
  gap: 6px;
`;

const Line = styled.div`
  display: flex;
  gap: 8px;
`;
