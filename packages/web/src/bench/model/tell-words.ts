import type { TellKind } from '@tersum/core';
import type { RepairTell } from '@tersum/document';

/** What each tell is called, its unit, and what mostly helps. */
export const TELL_WORDS: Record<TellKind, { name: string; unit: string; help: string }> = {
  seam: { name: 'Seam', unit: '×', help: 'Soften the edge, or graft instead of clone.' },
  tone: { name: 'Step of tone', unit: 'ΔE', help: 'Graft it, or take a donor of like tone.' },
  softness: { name: 'Soft', unit: '×', help: 'Take a sharper donor, or lower the strength.' },
  grain: { name: 'Grain', unit: '×', help: 'Take a donor with the grain of its surroundings.' },
  repeat: { name: 'Seen twice', unit: 'px', help: 'Take another donor, or another variant.' },
  'broken-line': { name: 'Broken line', unit: 'px', help: 'Shift the donor along the line.' },
  leftover: { name: 'Left over', unit: '', help: 'Mend it once more.' },
  pull: { name: 'Draws the eye', unit: '', help: 'Take it out, or tone it down.' },
};

/** A tell's value with its unit. */
export function tellValue({ kind, value }: RepairTell): string {
  return `${value.toFixed(kind === 'repeat' ? 0 : 2)} ${TELL_WORDS[kind].unit}`.trim();
}
