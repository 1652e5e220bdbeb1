import type { SiteFacts } from '../find/site-facts.js';

/** What is advised for one site. */
export interface Advice {
  readonly method: 'clone' | 'graft' | 'fill';
  /** px; null when what is wrong could not be told from its surroundings. */
  readonly width: number | null;
  /** 0..1 */
  readonly softness: number;
  readonly flow: number;
  /** In how many portions it is best done. */
  readonly portions: number;
  /** Whether strokes should keep step with one another. */
  readonly keepStep: boolean;
  /** One line for the person. */
  readonly reason: string;
}

interface Rule {
  /** Common practice, in the words of the trade. */
  readonly practice: string;
  applies(facts: SiteFacts): boolean;
  advise(facts: SiteFacts): Omit<Advice, 'width'>;
}

/** A site this wide is a big object, px; a portion is about so large. */
const BIG = 90;
const PORTION = 160;
const LONG = 6;
const EVEN = 2.5;

const px = (value: number): string => `${Math.max(0, Math.round(value))} px`;

/**
 * The table of rules; the first that applies is taken. All of it is common practice of the trade, with no
 * published source.
 */
export const RULES: readonly Rule[] = [
  {
    practice: 'Big object: a fill in several portions rather than all at once.',
    applies: (f) => f.width >= BIG,
    advise: (f) => {
      const portions = Math.max(2, Math.round(f.area / (PORTION * PORTION)));
      return {
        method: 'fill',
        softness: 0,
        flow: 1,
        portions,
        keepStep: false,
        reason: `${px(f.width)} wide: fill it, in ${portions} portions, then look at the joints`,
      };
    },
  },
  {
    practice: 'Long thin thing (wire, scratch, fold): a chain that follows it, then fill.',
    applies: (f) => f.slenderness >= LONG,
    advise: (f) => ({
      method: 'fill',
      softness: 0,
      flow: 1,
      portions: 1,
      keepStep: false,
      reason: `Long and thin, ${px(f.width)} wide: a hard mask and a fill follow it evenly`,
    }),
  },
  {
    practice: 'An edge runs through the site: clone, donor shifted along the line, keeping step.',
    applies: (f) => f.edge !== null && f.crossed && f.edge.distance <= 1,
    advise: (f) => ({
      method: 'clone',
      softness: 0.2,
      flow: 1,
      portions: 1,
      keepStep: true,
      reason: `Edge through it, contrast ${Math.round(f.edge!.contrast)}: clone along the edge so that it goes on in phase`,
    }),
  },
  {
    practice: 'Spot within about its own width of a strong edge: clone along the edge.',
    applies: (f) => f.edge !== null && f.edge.distance <= (f.defectWidth ?? f.width),
    advise: (f) => ({
      method: 'clone',
      softness: 0.2,
      flow: 1,
      portions: 1,
      keepStep: false,
      reason: `Edge ${px(f.edge!.distance)} away, contrast ${Math.round(f.edge!.contrast)}: clone along the edge`,
    }),
  },
  {
    practice: 'Small spot on even or finely textured ground: graft with an automatic donor.',
    applies: () => true,
    advise: (f) => ({
      method: 'graft',
      softness: 0.2,
      flow: 1,
      portions: 1,
      keepStep: false,
      reason:
        f.texture < EVEN
          ? 'Even ground, no edge near: a graft takes its tone from around'
          : `Textured ground, no edge within ${px(f.edge ? f.edge.distance : f.width)}: a graft keeps grain and tone`,
    }),
  },
];

/** Width of a stroke for a defect: a little larger, 1.1-1.3 times and at least 2 px over it (common practice). */
export function strokeWidthFor(defect: number): number {
  return Math.round(Math.max(1.2 * defect, defect + 2));
}

/** What is advised for a site so measured. */
export function adviseFor(facts: SiteFacts): Advice {
  const rule = RULES.find((r) => r.applies(facts))!;
  const { defectWidth } = facts;
  return {
    ...rule.advise(facts),
    // A line's width is measured along it when it is drawn; across a mixed ground the site alone tells less.
    width: defectWidth === null || facts.slenderness >= LONG ? null : strokeWidthFor(defectWidth),
  };
}
