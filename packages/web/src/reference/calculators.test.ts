import { CALCULATORS } from './calculators.js';

const of = (id: string, values?: readonly number[]) => {
  const calculator = CALCULATORS.find((c) => c.id === id)!;
  const outcomes = calculator.outcomes(values ?? calculator.entries.map((e) => e.value));
  return Object.fromEntries(outcomes.map((o) => [o.name, o.value]));
};

test('4200 x 6000 px at 1200 ppi are 3.5 x 5 in, 88.9 x 127 mm (common practice)', () => {
  const print = of('print');
  expect(print.Print).toBe('3.50 × 5.00 in');
  expect(print['']).toBe('88.9 × 127.0 mm');
  expect(print['16 bits, colour']).toBe('151.2 MB');
});

test('a print enlarged four times for 300 ppi is scanned at 1200 ppi', () => {
  expect(of('scan', [100, 400, 300])['Scan at']).toBe('1200 ppi');
});

test('at 300 mm 0.087 mm show (ISO 8596), about a px at 300 ppi', () => {
  expect(of('shows')).toEqual({ 'Least that shows': '0.087 mm', 'In the picture': '1.03 px' });
});

test('1500 x 2000 px to 16:9 widen to 3556 px, 57.8 % of it invented', () => {
  expect(of('canvas')).toMatchObject({ Canvas: '3556 × 2000 px', Invented: '57.8 %' });
});

test('every calculator reckons with what stands in it, and names where its rule is from', () => {
  for (const { id, entries, source } of CALCULATORS) {
    expect(source.length).toBeGreaterThan(8);
    for (const { value, least, most } of entries) {
      expect(value).toBeGreaterThanOrEqual(least);
      expect(value).toBeLessThanOrEqual(most);
    }
    for (const value of Object.values(of(id))) expect(value).not.toMatch(/NaN|Infinity|undefined/);
  }
});
