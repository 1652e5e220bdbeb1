import type { ExportFormat, ExportRequest, Picture } from '@tersum/document';
import styled from 'styled-components';
import { Dial } from '../../look/Dial.js';
import { OneOf } from '../../look/OneOf.js';
import { Caption } from '../../look/parts.js';
import { Field } from '../../look/Window.js';

const NAMES: Record<ExportFormat, string> = {
  png: 'PNG',
  tiff: 'TIFF',
  jpeg: 'JPEG',
  webp: 'WebP',
  ora: 'OpenRaster',
  zip: 'Job',
};

interface FormProps {
  readonly picture: Picture;
  /** Whether there are tone steps or a frame to put in. */
  readonly toFinish: boolean;
  readonly order: ExportRequest;
  onChange(order: ExportRequest): void;
}

/** What one file is to be. */
export function OrderForm({ picture, toFinish, order, onChange }: FormProps) {
  const { format, quality, finished, longest, ppi, profile, rule } = order;
  const whole = format === 'ora' || format === 'zip';
  const lossy = format === 'jpeg' || format === 'webp';
  const set = (patch: Partial<ExportRequest>): void => onChange({ ...order, ...patch });
  return (
    <>
      <Field as="div">
        <span>Format</span>
        <OneOf
          label="Format"
          options={NAMES}
          value={format}
          onChange={(next) => set({ format: next })}
        />
        <Caption>{wordsOn(picture, order, toFinish)}</Caption>
      </Field>
      {lossy && (
        <Dial
          label="Quality"
          unit=""
          least={1}
          most={100}
          value={quality}
          onChange={(next) => set({ quality: next })}
        />
      )}
      {toFinish && format !== 'zip' && (
        <Field as="div">
          <span>Tone steps and frame</span>
          <OneOf
            label="Tone steps and frame"
            options={{ in: 'Put in', out: 'Repairs alone' }}
            value={finished ? 'in' : 'out'}
            onChange={(next) => set({ finished: next === 'in' })}
          />
        </Field>
      )}
      {!whole && (
        <Sizes>
          <Field>
            <span>Longest side in px; empty for its own size</span>
            <input
              inputMode="numeric"
              value={longest ?? ''}
              onChange={(event) => set({ longest: numberIn(event.target.value) })}
            />
          </Field>
          <Field>
            <span>ppi; empty for {picture.ppi ? Math.round(picture.ppi) : 'none'}</span>
            <input
              inputMode="numeric"
              value={ppi ?? ''}
              onChange={(event) => set({ ppi: numberIn(event.target.value, 9600) })}
            />
          </Field>
        </Sizes>
      )}
      {!whole && picture.profile && (
        <Field as="div">
          <span>Colours</span>
          <OneOf
            label="Colours"
            options={{ kept: `As they are: ${picture.profile}`, srgb: 'Converted to sRGB' }}
            value={profile}
            onChange={(next) => set({ profile: next })}
          />
        </Field>
      )}
      <Field>
        <span>
          File name: {'{job}'}, {'{picture}'} and {'{date}'} are put in
        </span>
        <input
          value={rule}
          maxLength={200}
          onChange={(event) => set({ rule: event.target.value })}
        />
      </Field>
    </>
  );
}

function wordsOn(
  { bits }: Picture,
  { format, finished }: ExportRequest,
  toFinish: boolean,
): string {
  if (format === 'jpeg' || format === 'webp') return '8 bits a channel, smaller, not exact.';
  if (format === 'zip')
    return 'Original, records and donor maps: opens elsewhere and renders to the same pixels.';
  if (format === 'ora')
    return 'The original with every repair layer over it, and the picture as it is seen.';
  return toFinish && finished
    ? `${bits} bits a channel, with tone steps and frame.`
    : `${bits} bits a channel. Outside all repairs every pixel is the original’s, exactly.`;
}

function numberIn(text: string, most = 99_999): number | null {
  const digits = text.replace(/\D/g, '').slice(0, 5);
  return digits ? Math.min(most, Number(digits)) : null;
}

const Sizes = styled.div`
  display: grid;
  grid-template-columns: 2fr 1fr;
  gap: 12px;
`;
