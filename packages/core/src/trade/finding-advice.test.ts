import { adviseFinding, FINDING_RULES, orderOf, SECONDS } from './finding-advice.js';
import { FINDING_KINDS } from '../survey/finding.js';
import { IN_THE_HAND, millimetres, shows } from './visibility.js';

const facts = {
  kind: 'specks' as const,
  onBoard: false,
  size: 6,
  extent: 9,
  contrast: 31,
  nearEdge: null,
  box: { x: 10, y: 10, width: 6, height: 6 },
};

// Common practice of the trade, no published source: see each rule's own words.
describe('advice for findings', () => {
  test('a spot on open ground is grafted, a little wider than it is', () => {
    const advice = adviseFinding(facts);
    expect(advice.method).toBe('graft');
    expect(advice.width).toBe(8);
    expect(advice.reason).toContain('6 px across, contrast 31');
  });

  test('a spot beside a strong edge is cloned along it', () => {
    const advice = adviseFinding({ ...facts, nearEdge: { distance: 2, contrast: 38 } });
    expect(advice.method).toBe('clone');
    expect(advice.reason).toBe('edge 2 px away, contrast 38: clone along the edge');
  });

  test('a spot next to a line comes before the line, other spots after it', () => {
    expect(adviseFinding(facts, true).order).toBeLessThan(orderOf('lines', false));
    expect(adviseFinding(facts, false).order).toBeGreaterThan(orderOf('lines', false));
    expect(adviseFinding(facts, true).reason).toContain('before the line');
  });

  test('structure comes before lines, lines before spots, tone after them', () => {
    const order = (['losses', 'creases', 'lines', 'specks', 'stains'] as const).map((kind) =>
      orderOf(kind, false),
    );
    expect(order).toEqual([...order].sort((a, b) => a - b));
  });

  test('a mesh is filled with a hard mask, no turn, scale or mirror', () => {
    const advice = adviseFinding({ ...facts, kind: 'mesh' });
    expect(advice).toMatchObject({ method: 'fill', softness: 0 });
    expect(advice.donor).toContain('no turn, scale or mirror');
  });

  test('of letters on a sign the board is kept, of other writing what lies between', () => {
    expect(adviseFinding({ ...facts, kind: 'ink', onBoard: true }).reason).toContain(
      'keep the board',
    );
    expect(adviseFinding({ ...facts, kind: 'ink' }).reason).toContain('keep what lies between');
  });

  test('a large loss is filled in portions', () => {
    const box = { x: 0, y: 0, width: 600, height: 520 };
    expect(adviseFinding({ ...facts, kind: 'losses', box }).portions).toBe(5);
  });

  test('time by hand grows with length; sweeps are quicker for every kind', () => {
    expect(adviseFinding({ ...facts, kind: 'lines', extent: 500 }).byHand).toBe(70);
    for (const kind of FINDING_KINDS) expect(SECONDS[kind].swept).toBeLessThan(SECONDS[kind].each);
  });

  test('every kind has a rule, and every rule says what practice it stands for', () => {
    for (const kind of FINDING_KINDS) expect(adviseFinding({ ...facts, kind }).reason).not.toBe('');
    for (const { practice } of FINDING_RULES) expect(practice.length).toBeGreaterThan(20);
  });
});

// 1 arc minute (normal acuity, ISO 8596) is 0.291 mm at a metre and 0.087 mm at 300 mm.
describe('what shows at the intended use', () => {
  const use = (distance: number, enlargement = 1) => ({ ppi: 300, enlargement, distance });

  test('a mark of 0.087 mm is the limit at 300 mm', () => {
    const limit = (0.0873 / 25.4) * 300;
    expect(shows(limit * 1.01, 20, use(IN_THE_HAND.distance))).toBe(true);
    expect(shows(limit * 0.99, 20, use(IN_THE_HAND.distance))).toBe(false);
  });

  test('a mark of 0.291 mm is the limit at a metre; enlarging brings it in again', () => {
    const px = (0.28 / 25.4) * 300;
    expect(shows(px, 20, use(1000))).toBe(false);
    expect(shows(px, 20, use(1000, 2))).toBe(true);
  });

  test('what hardly differs from its surroundings does not show', () => {
    expect(shows(50, 1, use(300))).toBe(false);
  });

  test('300 px of a 300 ppi scan are an inch', () => {
    expect(millimetres(300, 300)).toBe(25.4);
  });
});
