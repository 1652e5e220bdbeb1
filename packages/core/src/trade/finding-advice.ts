import type { Finding, FindingKind } from '../survey/finding.js';
import type { Advice } from './advice.js';
import { strokeWidthFor } from './advice.js';

/** How a finding is best mended, when, and how long it takes. */
export interface FindingAdvice extends Advice {
  /** Where its donor is best taken from. */
  readonly donor: string;
  /** Rank in the order of work, lower first. */
  readonly order: number;
  /** Seconds by hand, and with a sweep. */
  readonly byHand: number;
  readonly swept: number;
}

type Facts = Pick<
  Finding,
  'kind' | 'onBoard' | 'size' | 'extent' | 'contrast' | 'nearEdge' | 'box'
>;
type Rest = Omit<
  FindingAdvice,
  'order' | 'byHand' | 'swept' | 'width' | 'portions' | 'keepStep' | 'flow'
> &
  Partial<Pick<Advice, 'portions' | 'keepStep' | 'flow'>>;

interface Rule {
  /** Common practice, in the words of the trade. */
  readonly practice: string;
  readonly kinds: readonly FindingKind[];
  applies(facts: Facts): boolean;
  advise(facts: Facts): Rest;
}

const px = (value: number): string => `${Math.max(1, Math.round(value))} px`;
/** An edge nearer than this, or than the spot is wide, is part of the matter; px. */
const BESIDE = 3;
/** A region larger than this is filled in portions of about this side, px. */
const PORTION = 260;
const always = (): boolean => true;

/** The table of rules; the first that applies is taken. All of it is common practice of the trade, with no published source. */
export const FINDING_RULES: readonly Rule[] = [
  {
    practice: 'Spot near a strong edge: clone along the edge, so that no tone is drawn across it.',
    kinds: ['specks'],
    applies: ({ nearEdge, size }) =>
      nearEdge !== null && nearEdge.distance <= Math.max(BESIDE, size / 2),
    advise: ({ nearEdge }) => ({
      method: 'clone',
      softness: 0.3,
      donor: 'along the edge',
      reason: `edge ${px(nearEdge!.distance)} away, contrast ${Math.round(nearEdge!.contrast)}: clone along the edge`,
    }),
  },
  {
    practice:
      'Small spot on even or textured ground: graft with an automatic donor, a little wider than the spot.',
    kinds: ['specks'],
    applies: always,
    advise: ({ size, contrast }) => ({
      method: 'graft',
      softness: 0.2,
      donor: 'nearest ground that matches',
      reason: `${px(size)} across, contrast ${Math.round(contrast)}, no edge beside it: graft keeps grain and tone`,
    }),
  },
  {
    practice:
      'Long thin thing (wire, scratch): a chain that follows it, then fill; a hard mask a little wider.',
    kinds: ['lines', 'wires'],
    applies: always,
    advise: ({ size, extent }) => ({
      method: 'fill',
      softness: 0,
      donor: 'both sides of the line',
      reason: `${px(size)} wide and ${px(extent)} long: follow it with a hard mask and fill`,
    }),
  },
  {
    practice:
      'Fence: a hard mask over every wire, a little wider, filled with no turn, scale or mirror.',
    kinds: ['mesh'],
    applies: always,
    advise: ({ size }) => ({
      method: 'fill',
      softness: 0,
      donor: 'between the wires, no turn, scale or mirror',
      reason: `two families of wires, ${px(size)} wide: a hard mask and one fill; a soft one leaves a ghost`,
    }),
  },
  {
    practice:
      'Crease and tear: structure first, at 70 % flow where worked by hand; the emulsion is gone, so fill.',
    kinds: ['creases'],
    applies: always,
    advise: ({ size }) => ({
      method: 'fill',
      softness: 0,
      flow: 0.7,
      donor: 'both sides in turn',
      reason: `emulsion gone, ${px(size)} wide: fill from both sides before any spot near it`,
    }),
  },
  {
    practice:
      'A region that is gone: fill in portions, or piece from a twin where half of a symmetric thing is left.',
    kinds: ['losses', 'ink', 'pulls'],
    applies: ({ box }) => Math.max(box.width, box.height) > PORTION,
    advise: ({ box }) => {
      const portions = Math.max(2, Math.round((box.width * box.height) / (PORTION * PORTION)));
      return {
        method: 'fill',
        softness: 0,
        donor: 'like ground around it',
        portions: Math.min(40, portions),
        reason: `${box.width} x ${box.height} px: fill in portions, then look at the joints`,
      };
    },
  },
  {
    practice:
      'Lettering on a sign or a label stood before the camera: fill the letters and keep the board.',
    kinds: ['ink'],
    applies: ({ onBoard }) => onBoard,
    advise: () => ({
      method: 'fill',
      softness: 0,
      donor: 'the board between its letters',
      reason: 'on a sign that stood before the camera: fill the letters, keep the board',
    }),
  },
  {
    practice:
      'Printed or written mark: fill its strokes only, so that folds and texture between them stay.',
    kinds: ['ink'],
    applies: always,
    advise: () => ({
      method: 'fill',
      softness: 0,
      donor: 'the ground between its strokes',
      reason: 'strokes of one colour: fill the strokes only and keep what lies between',
    }),
  },
  {
    practice:
      'Stain or fold shadow: tone only; graft at part strength keeps what is drawn below it.',
    kinds: ['stains'],
    applies: always,
    advise: ({ contrast }) => ({
      method: 'graft',
      softness: 0.6,
      donor: 'like ground beside it',
      reason: `tone off by ${Math.round(contrast)}, drawing intact: tone last, softly`,
    }),
  },
  {
    practice: 'Distraction: fill with what stands around it.',
    kinds: ['losses', 'pulls'],
    applies: always,
    advise: ({ contrast }) => ({
      method: 'fill',
      softness: 0,
      donor: 'around it',
      reason: `stands out by ${Math.round(contrast)}: fill from what stands around it`,
    }),
  },
];

/**
 * Order of work by kind: structure, then lines over ground, then spots, tone last (common practice). Specks come before
 * the lines they touch; that is told by {@link orderOf}.
 */
const ORDER: Record<FindingKind, number> = {
  losses: 10,
  creases: 20,
  mesh: 30,
  ink: 40,
  wires: 50,
  lines: 60,
  specks: 70,
  stains: 80,
  pulls: 90,
};

/** Seconds by hand for one finding and for every 100 px of it, and with a sweep; common practice, for people to correct. */
export const SECONDS: Record<
  FindingKind,
  { readonly each: number; readonly per100: number; readonly swept: number }
> = {
  specks: { each: 6, per100: 0, swept: 0.1 },
  lines: { each: 10, per100: 12, swept: 0.6 },
  creases: { each: 60, per100: 60, swept: 4 },
  losses: { each: 120, per100: 90, swept: 8 },
  stains: { each: 60, per100: 30, swept: 2 },
  ink: { each: 30, per100: 60, swept: 3 },
  wires: { each: 20, per100: 15, swept: 2 },
  mesh: { each: 300, per100: 240, swept: 20 },
  pulls: { each: 30, per100: 30, swept: 2 },
};

/** What is advised for a finding. @param touchesLine whether it is a speck on or beside a line */
export function adviseFinding(facts: Facts, touchesLine = false): FindingAdvice {
  const rule = FINDING_RULES.find((r) => r.kinds.includes(facts.kind) && r.applies(facts))!;
  const rest = rule.advise(facts);
  const { each, per100, swept } = SECONDS[facts.kind];
  return {
    flow: 1,
    portions: 1,
    keepStep: false,
    ...rest,
    width: strokeWidthFor(facts.size),
    reason: touchesLine ? `${rest.reason}; before the line beside it` : rest.reason,
    order: orderOf(facts.kind, touchesLine),
    byHand: Math.round(each + (per100 * facts.extent) / 100),
    swept,
  };
}

/** A speck next to a line comes before it, or the line's repair copies the speck back in (common practice). */
export function orderOf(kind: FindingKind, touchesLine: boolean): number {
  return kind === 'specks' && touchesLine ? ORDER.lines - 1 : ORDER[kind];
}
