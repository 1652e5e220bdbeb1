import type { BenchState, Tool } from './state.js';

export const FIRST_TOOL: Tool = {
  method: 'fill',
  shape: 'stroke',
  width: 24,
  softness: 0,
  flow: 1,
  strength: 1,
  adapt: 1,
  donor: { kind: 'search' },
  keepStep: true,
  layerId: null,
  patchAs: 'graft',
  patchFrom: 'bad',
};

/** What a bench shows before its picture is there. */
export function firstState(pictureId: string): BenchState {
  return {
    pictureId,
    records: null,
    trouble: null,
    view: null,
    preview: null,
    computing: null,
    saving: 0,
    notice: null,
    tell: null,
    tool: FIRST_TOOL,
    draft: null,
    pending: null,
    selected: null,
    also: [],
    offers: null,
    variants: null,
    grounds: null,
    fillHand: 'pick',
    rough: null,
    heat: null,
    sliding: null,
    pieceHand: 'move',
    axis: null,
    quiet: new Set<string>(),
    viewport: null,
    openAt: null,
    table: { width: 0, height: 0 },
    pointer: null,
    asReceived: false,
    split: null,
    showAll: false,
    pickingDonor: false,
    findingKind: null,
    finding: null,
    addingFinding: false,
    marking: null,
    surround: 'light',
  };
}

/** Nothing in hand for any one repair. */
export const PUT_AWAY = {
  offers: null,
  variants: null,
  grounds: null,
  heat: null,
  fillHand: 'pick',
} as const;
