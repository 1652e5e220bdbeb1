import { FINDING_KINDS } from './finding.js';
import { gathered, GATHERINGS, gathersFrom } from './gather.js';
import { halvesOf } from '../raster/halves.js';
import { studiesFor, study } from './studies.js';
import { findingsFrom, survey } from './survey.js';
import { curve, Scene } from './test-scenes.js';

const scene = new Scene(420, 320, 5);
for (let k = 0; k < 25; k++)
  scene.disc(
    scene.between(10, 409),
    scene.between(10, 309),
    scene.between(3, 7) / 2,
    [246, 245, 243],
  );
scene.line(
  curve(60, (t) => [40 + 300 * t, 60 + 90 * Math.sin(2.4 * t)]),
  2.5,
  [14, 13, 15],
);
const { picture } = scene;
const halves = halvesOf(picture);
const studied = studiesFor(picture, FINDING_KINDS).flatMap((work) => study(halves, work));

test('every gathering needs its own studies alone, and together they come to the whole survey', () => {
  const apart = GATHERINGS.map((of) =>
    gathered(
      halves,
      studied.filter(({ of: what }) => gathersFrom(of, what)),
      of,
    ),
  );
  expect(apart).toEqual(GATHERINGS.map((of) => gathered(halves, studied, of)));
  // As plain data, the way it comes from another thread.
  const findings = findingsFrom(picture, structuredClone(apart.flat()));
  expect(findings).toEqual(survey(picture));
  expect(new Set(findings.map(({ kind }) => kind))).toEqual(new Set(['specks', 'lines']));
});

test('kinds are gathered where they belong', () => {
  const kinds = Object.fromEntries(
    GATHERINGS.map((of) => [of, new Set(gathered(halves, studied, of).map((c) => c.kind))]),
  );
  expect(kinds.lines).toContain('lines');
  expect(kinds.mesh).toEqual(new Set());
  for (const kind of kinds.creases!) expect(kind).toBe('creases');
  expect(kinds.regions).toContain('specks');
  for (const kind of kinds.lines!) expect(kinds.regions).not.toContain(kind);
});

test('without studies nothing is gathered', () => {
  for (const of of GATHERINGS) expect(gathered(halves, [], of)).toEqual([]);
});
