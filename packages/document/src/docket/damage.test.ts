import type { DocketFinding } from '../schema/finding.js';
import { SurveySettingsSchema } from '../schema/finding.js';
import { damageNear } from './damage.js';

const finding = (x: number, more: Partial<DocketFinding> = {}): DocketFinding =>
  ({
    kind: 'specks',
    box: { x, y: 10, width: 4, height: 4 },
    outlines: [
      [
        [x, 10],
        [x + 4, 10],
        [x, 14],
      ],
    ],
    score: 0.9,
    dismissed: false,
    repairId: null,
    size: 4,
    contrast: 20,
    by: 'survey',
    ...more,
  }) as DocketFinding;

test('damage is what is open and near: not what was dismissed, mended, unsure, far off, or only draws the eye', () => {
  const mended = crypto.randomUUID();
  const areas = damageNear(
    {
      findings: [
        finding(10),
        finding(20, { dismissed: true }),
        finding(30, { repairId: mended }),
        finding(40, { score: 0.1 }),
        finding(50, { kind: 'pulls' }),
        finding(400),
        finding(60, { repairId: crypto.randomUUID() }),
      ],
      settings: SurveySettingsSchema.parse({}),
      standing: new Set([mended]),
      ppi: null,
    },
    { x: 0, y: 0, width: 100, height: 50 },
  );
  expect(areas.map(({ shape }) => (shape.kind === 'outline' ? shape.points[0] : null))).toEqual([
    [10, 10],
    // Its repair was taken away.
    [60, 10],
  ]);
  expect(areas.every(({ allow }) => !allow)).toBe(true);
});
