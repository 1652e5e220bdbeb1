import { cautionsAt } from '@tersum/core';
import type { Report } from '@tersum/document';

type Row = Report['layers'][number]['repairs'][number];

/** What stands at the end of every report. */
export const REPORT_NOTES: readonly string[] = [
  ...cautionsAt('delivery').map((c) => c.text),
  ...cautionsAt('intake').map((c) => c.text),
];

export function percent(share: number): string {
  return share > 0 && share < 0.0005 ? 'under 0.1 %' : `${(100 * share).toFixed(1)} %`;
}

/** How large a repair is: its parts when it has several, else its longer side. */
export function sizeLine({ parts, sizeMm, sizePx }: Row): string {
  if (parts > 1) return `${parts} parts`;
  return sizeMm === null ? `${sizePx} px` : `${sizeMm.toFixed(1)} mm`;
}

/** Preparation, tone steps and frame, in a few sentences. */
export function toneLine({ prepared, tones, framed }: Report): string {
  const steps = tones.map(({ name, strength }) =>
    strength < 1 ? `${name} at ${Math.round(100 * strength)} %` : name,
  );
  const before = prepared.length ? `Before repairs: ${prepared.join('; ')}. ` : '';
  return `${before}Tone steps: ${steps.length ? steps.join(', ') : 'none'}. ${
    framed ? 'Straightened and cropped.' : 'Neither straightened nor cropped.'
  }`;
}

/** What the proof told, in a sentence. */
export function proofLine({ proof }: Report): string {
  if (!proof) return 'The repairs were not proved.';
  const { open, standing } = proof;
  const stand =
    standing === 0
      ? ''
      : ` ${standing} ${standing === 1 ? 'was' : 'were'} looked at and let stand.`;
  if (!open)
    return `Proved: ${standing ? 'nothing else' : 'nothing'} gives the repairs away.${stand}`;
  return `Proved: ${open} ${open === 1 ? 'measure is' : 'measures are'} beyond the limits.${stand}`;
}

/** What was allowed to be mended. */
export const POLICY_WORDS: Record<Report['policy'], string> = {
  documentary:
    'Policy: only damage may go; nothing that stood before the camera was to be taken out.',
  picture: 'Policy: what distracts from the subject may go as well as damage.',
};
