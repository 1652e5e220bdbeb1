import type { DocketFinding, PictureRecords, SurveyAnswer } from '@tersum/document';
import { FINDING_KINDS } from '@tersum/core';
import { groupsOf, isLong, liesAtEdge, measuresOf, placeOfFinding } from './findings.js';
import { timeOf } from '../../look/time.js';

const finding = (id: string, more: Partial<DocketFinding> = {}): DocketFinding => ({
  id,
  kind: 'specks',
  box: { x: 0, y: 0, width: 4, height: 4 },
  outlines: [],
  polarity: 1,
  onBoard: false,
  size: 4,
  extent: 6,
  contrast: 30,
  nearEdge: null,
  score: 0.8,
  advice: {
    method: 'graft',
    width: 6,
    softness: 0.2,
    flow: 1,
    portions: 1,
    keepStep: false,
    donor: '',
    reason: '',
    order: 70,
    byHand: 6,
    swept: 0.1,
  },
  by: 'survey',
  dismissed: false,
  repairId: null,
  ...more,
});

const records = (repairs: string[]): PictureRecords =>
  ({ picture: { ppi: 300 }, repairs: repairs.map((id) => ({ id })) }) as unknown as PictureRecords;

const survey = (
  findings: DocketFinding[],
  settings: Partial<SurveyAnswer['settings']> = {},
): SurveyAnswer => ({
  state: 'ready',
  share: 1,
  message: null,
  settings: {
    policy: 'documentary',
    sensitivity: {},
    areas: [],
    subject: null,
    onlyShown: false,
    enlargement: 1,
    distance: 300,
    ...settings,
  },
  findings,
});

describe('docket of findings', () => {
  test('sorts into open, mended and kept; an undone repair opens its findings again', () => {
    const all = [
      finding('a'),
      finding('b', { repairId: 'r' }),
      finding('c', { dismissed: true }),
      finding('d', { score: 0.3 }),
    ];
    const [group] = groupsOf(survey(all), records(['r']));
    expect(group!.open.map((f) => f.id)).toEqual(['a']);
    expect(group!.mended.map((f) => f.id)).toEqual(['b']);
    expect(group!.dismissed.map((f) => f.id)).toEqual(['c']);
    expect(groupsOf(survey(all), records([]))[0]!.open.map((f) => f.id)).toEqual(['a', 'b']);
    expect(
      groupsOf(survey(all, { sensitivity: { specks: 0.8 } }), records([]))[0]!.open,
    ).toHaveLength(3);
    expect(group!.byHand).toBe(6);
  });

  test('documentary proposes no wires; what does not show can be left out', () => {
    const all = [finding('w', { kind: 'wires' }), finding('s', { size: 0.5 })];
    expect(groupsOf(survey(all), records([])).map((g) => g.kind)).toEqual(['specks']);
    expect(groupsOf(survey(all, { policy: 'picture' }), records([])).map((g) => g.kind)).toEqual([
      'wires',
      'specks',
    ]);
    // The kind stays listed: with other settings it may have some.
    expect(groupsOf(survey(all, { onlyShown: true }), records([]))).toMatchObject([
      { kind: 'specks', open: [] },
    ]);
  });

  test('documentary proposes no signs that stood before the camera, and writing on the photograph it does', () => {
    const all = [finding('sign', { kind: 'ink', onBoard: true }), finding('i', { kind: 'ink' })];
    const open = (policy: 'documentary' | 'picture'): string[] =>
      groupsOf(survey(all, { policy }), records([])).flatMap((g) => g.open.map((f) => f.id));
    expect(open('documentary')).toEqual(['i']);
    expect(open('picture')).toEqual(['sign', 'i']);
  });

  test('measures and times read as people write them', () => {
    expect(measuresOf(12, null)).toEqual(['12 px']);
    expect(measuresOf(30, 300)).toEqual(['30 px', '2.5 mm']);
    expect(measuresOf(0.6, 300)).toEqual(['0.6 px', '0.05 mm']);
    expect([timeOf(0.2), timeOf(45), timeOf(600), timeOf(5700)]).toEqual([
      '1 s',
      '45 s',
      '10 min',
      '1 h 35 min',
    ]);
  });
});

describe('a finding on its row', () => {
  test('an edge is worth a word where it is clear and near', () => {
    const clear = { distance: 3, contrast: 40 };
    expect(liesAtEdge(finding('a'))).toBe(false);
    expect(liesAtEdge(finding('a', { nearEdge: clear }))).toBe(true);
    for (const nearEdge of [
      { ...clear, distance: 9 },
      { ...clear, contrast: 14 },
    ])
      expect(liesAtEdge(finding('a', { nearEdge }))).toBe(false);
  });

  test('lines, creases and wires are told by their length', () => {
    expect(FINDING_KINDS.filter(isLong)).toEqual(['creases', 'wires', 'lines']);
  });

  test('what is compact is shown whole, of what is long a piece that it runs through', () => {
    const box = { x: 100, y: 40, width: 60, height: 30 };
    expect(placeOfFinding(finding('a', { box }))).toEqual({ x: 130, y: 55, side: 78 });
    const bowed = finding('a', {
      kind: 'wires',
      size: 5,
      box: { x: 0, y: 0, width: 1000, height: 400 },
      outlines: [
        [
          [0, 0],
          [480, 390],
          [1000, 0],
        ],
      ],
    });
    expect(placeOfFinding(bowed)).toEqual({ x: 480, y: 390, side: 90 });
    expect(placeOfFinding({ ...bowed, size: 60 }).side).toBe(240);
  });
});
