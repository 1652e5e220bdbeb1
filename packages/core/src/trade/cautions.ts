/** Where a caution applies. */
export type CautionPlace = 'intake' | 'work' | 'delivery';

export interface Caution {
  readonly id: string;
  readonly place: CautionPlace;
  readonly text: string;
}

/** What to be careful of; common practice. */
export const CAUTIONS: readonly Caution[] = [
  {
    id: 'original',
    place: 'intake',
    text: 'Mouldy, sticking, flaking or broken originals, glass plates, and old film base that smells of vinegar or camphor (nitrate burns fiercely) go to a qualified photograph conservator before anything is scanned.',
  },
  {
    id: 'flat',
    place: 'intake',
    text: 'Never press a curled or cracked print flat, and use no cleaning fluids on it.',
  },
  {
    id: 'keep',
    place: 'delivery',
    text: 'Keep the untouched scan for ever; every repair lies on a layer of its own and can be taken back.',
  },
  {
    id: 'evidence',
    place: 'delivery',
    text: 'Pictures used as evidence, identity papers, medical and news pictures are not retouched. Say what was altered when a picture could be taken as a record.',
  },
  {
    id: 'rest',
    place: 'work',
    text: 'Rest eyes and hand: a short break about every 20 to 30 minutes.',
  },
];

export function cautionsAt(place: CautionPlace): readonly Caution[] {
  return CAUTIONS.filter((c) => c.place === place);
}
