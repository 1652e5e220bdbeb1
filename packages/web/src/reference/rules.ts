import { TELL_LIMITS } from '@tersum/core';

/** Rules of thumb without arithmetic; all of them common practice with no published source. */
export interface RuleList {
  readonly id: string;
  readonly title: string;
  readonly rows: readonly (readonly [what: string, how: string])[];
}

export const RULE_LISTS: readonly RuleList[] = [
  {
    id: 'order',
    title: 'Order of work',
    rows: [
      ['1 Structure', 'Losses, tears and creases first: everything else lies on them.'],
      [
        '2 Lines',
        'Hairs, scratches, wires; specks beside a line before the line, or it copies them back.',
      ],
      ['3 Spots', 'Dust and stains, small before large.'],
      ['4 Tone', 'Levels to just short of clipping; lighten and darken locally at about 10 %.'],
      ['5 Detail', 'Sharpen to just short of halos, then take noise out.'],
      ['6 Toning', 'Back to the tint of the original, last.'],
    ],
  },
  {
    id: 'method',
    title: 'Which method',
    rows: [
      ['Spot on even ground', 'Graft with an automatic donor: the tone blends in.'],
      [
        'Spot beside a strong edge',
        'Clone along the edge; a graft pulls the other side’s tone across.',
      ],
      [
        'Edge or course runs through',
        'Clone, donor shifted along the line, strokes that keep step.',
      ],
      ['Featureless sky or wall', 'Clone or graft, starting afresh each time.'],
      ['Area lost with its tone', 'Graft: texture from the donor, tone from around.'],
      ['Big object', 'Fill in portions, then clean the joints.'],
      ['Long thin thing', 'A chain of straight runs that follows it, then fill or graft.'],
      [
        'Fence',
        'A hard mask a little wider than its wires, then fill with no turn, scale or mirror.',
      ],
      [
        'Half of a symmetric thing',
        'Piece: lift the twin, mirror it, lay it at half strength, reveal.',
      ],
      ['Lines round eyes, skin', 'Graft at 60 to 80 % strength: a hint stays and looks real.'],
    ],
  },
  {
    id: 'donor',
    title: 'Donors',
    rows: [
      ['Where', 'As near as possible, from both sides of a gap in turn.'],
      ['How often', 'A fresh one every few strokes: repeats are what viewers notice first.'],
      [
        'Strength',
        '70 % for patches, 60 % for patches laid the other way, 75 to 80 % for lines near eyes.',
      ],
      ['Variants', 'Three are offered of a large fill; usually one is usable.'],
    ],
  },
  {
    id: 'tells',
    title: 'What gives a repair away',
    rows: [
      [
        'Seam',
        `Steps across the site’s border beside the steps around it; over ${TELL_LIMITS.seam} times.`,
      ],
      [
        'Step of tone',
        `CIEDE2000 between just inside and just outside, the middle over the border; over ${TELL_LIMITS.tone}.`,
      ],
      [
        'Softness',
        `Fine detail beside what the surroundings let expect; under ${TELL_LIMITS.softness}.`,
      ],
      [
        'Grain',
        `Finest detail just inside the border beside that just outside, less what the coarser detail explains; under ${TELL_LIMITS.grain}, or over its inverse cubed.`,
      ],
      ['Seen twice', `The same within sight by one shift; over ${TELL_LIMITS.repeat} px across.`],
      ['Broken line', `An edge that jumps at the border; over ${TELL_LIMITS['broken-line']} px.`],
    ],
  },
];
