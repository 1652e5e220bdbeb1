import { Input, Label, NumberField, Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { look } from './theme.js';

interface DialProps {
  readonly label: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly step?: number;
  readonly unit: string;
  /** Keys that move it, for the tooltip. */
  readonly keys?: string;
  /** A word of practice, for the tooltip. */
  readonly hint?: string;
  readonly isDisabled?: boolean;
  /** Bends the slider so that small values get more room. */
  readonly bent?: boolean;
  /** While dragging. */
  onChange(value: number): void;
  /** When let go. */
  onDone?(value: number): void;
}

/** A slider with its figure and unit. */
export function Dial(props: DialProps) {
  const {
    label,
    value,
    least,
    most,
    step = 1,
    unit,
    keys,
    hint,
    isDisabled = false,
    bent,
    onChange,
    onDone,
  } = props;
  const toTrack = (v: number): number =>
    bent ? Math.sqrt((v - least) / (most - least)) : (v - least) / (most - least);
  const fromTrack = (t: number): number => {
    const v = least + (bent ? t * t : t) * (most - least);
    return Math.min(most, Math.max(least, Math.round(v / step) * step));
  };
  return (
    <Frame title={hint ?? (keys ? `Keys: ${keys}` : undefined)}>
      <NumberField
        aria-label={label}
        value={value}
        minValue={least}
        maxValue={most}
        step={step}
        isDisabled={isDisabled}
        onChange={(v) => {
          if (Number.isNaN(v)) return;
          onChange(v);
          onDone?.(v);
        }}
      >
        <Head>
          <Label>{label}</Label>
          <Entry>
            <Input />
            <span>{unit}</span>
          </Entry>
        </Head>
      </NumberField>
      <Slider
        aria-label={`${label} slider`}
        minValue={0}
        maxValue={1}
        step={0.001}
        value={toTrack(Math.min(most, Math.max(least, value)))}
        isDisabled={isDisabled}
        onChange={(t) => onChange(fromTrack(t))}
        onChangeEnd={(t) => onDone?.(fromTrack(t))}
      >
        <Track>
          {({ state }) => (
            <>
              <Filled style={{ width: `${state.getThumbPercent(0) * 100}%` }} />
              <Thumb />
            </>
          )}
        </Track>
      </Slider>
    </Frame>
  );
}

const Frame = styled.div`
  min-width: 0;
`;

const Head = styled.div`
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 8px;
`;

const Entry = styled.div`
  display: flex;
  align-items: baseline;
  gap: 3px;
  font: 500 12px/20px ${look.figures};
  input {
    width: 5ch;
    border: 0;
    border-bottom: 1px solid transparent;
    background: transparent;
    text-align: right;
    font: inherit;
    padding: 0;
    border-radius: 0;
  }
  input:hover {
    border-bottom-color: ${look.hairline};
  }
  input:focus {
    border-bottom-color: ${look.done};
  }
  span {
    color: ${look.inkSoft};
    min-width: 2ch;
  }
`;

const Track = styled(SliderTrack)`
  position: relative;
  height: 18px;
  &::before {
    content: '';
    position: absolute;
    inset: 8px 0;
    background: ${look.hairline};
  }
`;

const Filled = styled.div`
  position: absolute;
  left: 0;
  top: 8px;
  height: 2px;
  background: ${look.ink};
`;

const Thumb = styled(SliderThumb)`
  width: 9px;
  height: 16px;
  top: 50%;
  border-radius: 2px;
  background: ${look.paperHigh};
  border: 1.5px solid ${look.ink};
  &[data-dragging] {
    background: ${look.ink};
  }
  &[data-focus-visible] {
    outline: 2px solid ${look.done};
    outline-offset: 2px;
  }
  &[data-disabled] {
    border-color: #8b8f8a;
  }
`;
