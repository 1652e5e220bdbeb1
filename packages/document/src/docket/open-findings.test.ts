import type { DocketFinding, SurveySettings } from '../schema/finding.js';
import { SurveySettingsSchema } from '../schema/finding.js';
import type { FindingFacts } from './open-findings.js';
import { isOpen, passedOver, useOf } from './open-findings.js';

const settings = SurveySettingsSchema.parse({});
const fact = (more: Partial<FindingFacts> = {}): FindingFacts => ({
  kind: 'specks',
  score: 0.8,
  box: { x: 10, y: 10, width: 4, height: 4 },
  by: 'survey',
  onBoard: false,
  size: 4,
  contrast: 20,
  dismissed: false,
  repairId: null,
  ...more,
});
const open = (more: Partial<FindingFacts>, over = settings, standing: string[] = []): boolean =>
  isOpen(fact(more), over, new Set(standing), 300);

test('open is what is likely, allowed, neither kept as it is nor mended', () => {
  expect(open({})).toBe(true);
  expect(open({ score: 0.4 })).toBe(false);
  expect(open({ score: 0.4 }, { ...settings, sensitivity: { specks: 0.9 } })).toBe(true);
  expect(open({ dismissed: true })).toBe(false);
  expect(open({ kind: 'wires' })).toBe(false);
  expect(open({ kind: 'wires' }, { ...settings, policy: 'picture' })).toBe(true);
});

test('writing that stood before the camera is open under the picture policy alone', () => {
  expect(open({ kind: 'ink' })).toBe(true);
  expect(open({ kind: 'ink', onBoard: true })).toBe(false);
  expect(open({ kind: 'ink', onBoard: true }, { ...settings, policy: 'picture' })).toBe(true);
});

test('a mended finding is open again when its repair no longer stands', () => {
  expect(open({ repairId: 'r' }, settings, ['r'])).toBe(false);
  expect(open({ repairId: 'r' }, settings, [])).toBe(true);
});

test('what does not show at the use can be left out: under 0.087 mm at 300 mm (ISO 8596)', () => {
  const shown = { ...settings, onlyShown: true };
  // At 300 ppi a px is 0.085 mm.
  expect(open({ size: 1 }, shown)).toBe(false);
  expect(open({ size: 1.1 }, shown)).toBe(true);
  expect(open({ size: 4, contrast: 1 }, shown)).toBe(false);
  expect(open({ size: 1 }, { ...shown, enlargement: 2 })).toBe(true);
  expect(useOf(settings, null).ppi).toBe(300);
});

describe('areas', () => {
  const asked = (more: Partial<SurveySettings>): SurveySettings =>
    SurveySettingsSchema.parse({ policy: 'picture', ...more });
  const square = (x: number, y: number, side: number): [number, number][] => [
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ];
  const at = (x: number, y: number, kind: FindingFacts['kind'] = 'specks'): FindingFacts =>
    fact({ kind, box: { x: x - 2, y: y - 2, width: 4, height: 4 } });
  const isAsked = (f: FindingFacts, s: SurveySettings): boolean => isOpen(f, s, new Set(), 300);

  test('a kind is limited to areas, each of them counts; other kinds are not', () => {
    const limited = asked({
      areas: [
        { kind: 'specks', only: true, outline: square(0, 0, 50) },
        { kind: 'specks', only: true, outline: square(100, 0, 50) },
      ],
    });
    expect(isAsked(at(20, 20), limited)).toBe(true);
    expect(isAsked(at(120, 20), limited)).toBe(true);
    expect(isAsked(at(70, 20), limited)).toBe(false);
    expect(isAsked(at(70, 20, 'lines'), limited)).toBe(true);
  });

  test('a kind is kept off an area, also within one it is limited to', () => {
    const kept = asked({
      areas: [
        { kind: 'specks', only: true, outline: square(0, 0, 100) },
        { kind: 'specks', only: false, outline: square(40, 40, 20) },
      ],
    });
    expect(isAsked(at(20, 20), kept)).toBe(true);
    expect(isAsked(at(50, 50), kept)).toBe(false);
  });

  test('nothing within the subject draws the eye away from it', () => {
    const marked = asked({ subject: square(10, 10, 60) });
    expect(isAsked(at(30, 30, 'pulls'), marked)).toBe(false);
    expect(isAsked(at(90, 30, 'pulls'), marked)).toBe(true);
    expect(isAsked(at(30, 30, 'specks'), marked)).toBe(true);
  });
});

describe('what was passed over', () => {
  const settings = SurveySettingsSchema.parse({ policy: 'picture' });
  const record = (id: string, side: number, more: Partial<DocketFinding>): DocketFinding => ({
    ...fact(),
    id,
    outlines: [
      [
        [0, 0],
        [side, 0],
        [side, side],
        [0, side],
      ],
    ],
    box: { x: 0, y: 0, width: side, height: side },
    polarity: 1,
    extent: side,
    nearEdge: null,
    by: 'survey',
    advice: {} as DocketFinding['advice'],
    ...more,
  });
  const at = (all: DocketFinding[], standing: string[] = []): string | undefined =>
    passedOver(all, [5, 5], settings, new Set(standing), 300)?.id;

  test('a doubted finding at the place is taken up, the smallest of several', () => {
    const mesh = record('mesh', 400, { kind: 'mesh', score: 0.2 });
    const speck = record('speck', 10, { score: 0.1 });
    expect(at([mesh, speck])).toBe('speck');
    expect(at([mesh])).toBe('mesh');
    expect(at([record('off', 10, { dismissed: true })])).toBe('off');
  });

  test('what is on the docket, mended, elsewhere or not allowed is not', () => {
    expect(at([record('open', 10, {})])).toBeUndefined();
    expect(at([record('done', 10, { score: 0.1, repairId: 'r' })], ['r'])).toBeUndefined();
    expect(at([record('away', 3, { score: 0.1 })])).toBeUndefined();
    const documentary = { ...settings, policy: 'documentary' as const };
    const wire = record('wire', 10, { kind: 'wires', score: 0.1 });
    expect(passedOver([wire], [5, 5], documentary, new Set(), 300)).toBeNull();
  });
});
