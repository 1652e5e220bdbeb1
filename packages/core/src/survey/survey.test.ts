import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import type { Finding, FindingKind } from './finding.js';
import { outlinesOf } from './outlines.js';
import { survey } from './survey.js';
import { agreement, curve, Scene } from './test-scenes.js';

const WHITE = [246, 245, 243];
const BLACK = [14, 13, 15];

function maskOf(picture: Raster, kind: FindingKind): Uint8Array {
  return maskFrom(survey(picture, { kinds: [kind] }), picture);
}

function maskFrom(findings: readonly Finding[], { width, height }: Raster): Uint8Array {
  const mask = new Uint8Array(width * height);
  for (const { pixels } of findings) for (const p of pixels) mask[p] = 1;
  return mask;
}

function dusty(colour: readonly number[]): Scene {
  const scene = new Scene(420, 320, 5);
  for (let k = 0; k < 40; k++)
    scene.disc(scene.between(10, 409), scene.between(10, 309), scene.between(3, 7) / 2, colour);
  return scene;
}

function hairy(colour: readonly number[]): Scene {
  const scene = new Scene(420, 320, 6);
  scene.line(
    curve(60, (t) => [40 + 300 * t, 60 + 90 * Math.sin(2.4 * t)]),
    2.5,
    colour,
  );
  scene.line(
    curve(60, (t) => [380 - 60 * t, 120 + 160 * t]),
    2,
    colour,
  );
  return scene;
}

/** Tears the right upper corner off: what lies bare, and the fringe of the torn paper. */
function tearCorner(scene: Scene): void {
  for (let y = 0; y < 320; y++)
    for (let x = 0; x < 420; x++) {
      const d = (420 - x) / 110 + y / 90 - 1 + 0.03 * Math.sin(x / 5) + 0.02 * Math.sin(y / 3);
      if (d < 0) scene.lay(x, y, [60, 64, 70]);
      else if (d < 0.03) scene.lay(x, y, [240, 238, 235]);
    }
}

/** A picture turned counter-clockwise by 90 degrees. */
function turned({ width, height, channels, data }: Raster): Raster {
  const out = createRaster(height, width, 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++)
        out.data[((width - 1 - x) * height + y) * 3 + c] = data[(y * width + x) * channels + c]!;
  return out;
}

const BLUE = [36, 40, 112];

/** Writes rows of winding letters. */
function write(
  scene: Scene,
  rows: readonly number[],
  ink: readonly number[],
  places: readonly number[] = [50, 96, 142, 188, 234, 280, 326, 372, 418],
): void {
  for (const row of rows)
    for (const x of places)
      scene.line(
        curve(40, (t) => [x + 17 * Math.sin(7 * t), row + 30 * Math.cos(7 * t) - 12 * t]),
        4,
        ink,
      );
}

describe('survey', () => {
  test('an untouched ground has nothing to find', () => {
    const found = survey(new Scene(420, 320, 3).picture);
    expect(found.map(({ kind }) => kind)).toEqual([]);
  });

  test.each([
    ['bright', WHITE],
    ['dark', BLACK],
  ])('%s specks are found with their outlines, size and polarity', (name, colour) => {
    const scene = dusty(colour);
    const found = survey(scene.picture, { kinds: ['specks'] });
    const { precision, recall } = agreement(maskFrom(found, scene.picture), scene.damage, 420);
    expect(precision).toBeGreaterThan(0.9);
    expect(recall).toBeGreaterThan(0.8);
    expect(found.every(({ polarity }) => polarity === (name === 'bright' ? 1 : -1))).toBe(true);
    for (const { size, contrast } of found) {
      expect(size).toBeGreaterThan(1.5);
      expect(size).toBeLessThan(11);
      expect(contrast).toBeGreaterThan(10);
    }
    expect(outlinesOf(found[0]!, 420)[0]!.length).toBeGreaterThan(2);
  });

  test.each([
    ['bright', WHITE],
    ['dark', BLACK],
  ])('%s hairs are found as lines that follow them, as wide as they are', (_, colour) => {
    const scene = hairy(colour);
    const found = survey(scene.picture).filter(({ kind }) => kind === 'lines');
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 420).f1).toBeGreaterThan(0.85);
    for (const { line, size } of found) {
      expect(size).toBeGreaterThan(1);
      expect(size).toBeLessThan(4.5);
      expect(line!.length).toBeGreaterThan(8);
    }
  });

  test('a crease of bare paper across the picture is one crease', () => {
    const scene = new Scene(480, 360, 9);
    const way = curve(60, (t) => [-4 + 488 * t, 150 + 40 * t + scene.between(-2, 2)]);
    for (let k = 0; k < 60; k++)
      scene.line([way[k]!, way[k + 1]!], 10 + scene.between(0, 4), [232, 231, 226]);
    const found = survey(scene.picture, { kinds: ['creases'] });
    expect(found).toHaveLength(1);
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 480).f1).toBeGreaterThan(0.9);
  });

  test('a corner that is gone is a loss, its torn fringe with it', () => {
    const scene = new Scene(420, 320, 4);
    tearCorner(scene);
    const found = survey(scene.picture, { kinds: ['losses'] });
    expect(found).toHaveLength(1);
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 420).f1).toBeGreaterThan(0.97);
  });

  test('a white ground of the photograph beside a torn corner is no loss: what lies bare is of one colour', () => {
    const scene = new Scene(420, 320, 4);
    for (let y = 0; y < 320; y++) for (let x = 0; x < 150; x++) scene.lay(x, y, [229, 228, 226], 1);
    scene.damage.fill(0);
    tearCorner(scene);
    const found = survey(scene.picture, { kinds: ['losses'] });
    expect(found).toHaveLength(1);
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 420).f1).toBeGreaterThan(0.97);
  });

  test('broad scratches that let the ground show through are found on a plain ground', () => {
    const scene = new Scene(420, 320, 8);
    for (const [ax, ay, bx, by] of [
      [60, 50, 300, 90],
      [120, 250, 330, 200],
      [330, 60, 370, 230],
    ] as const) {
      const mark = new Scene(420, 320);
      const way = curve(60, (t) => [ax + (bx - ax) * t, ay + (by - ay) * t + 12 * t * (1 - t)]);
      mark.line(way, 4.5, WHITE);
      mark.damage.forEach((on, p) => {
        if (!on) return;
        const [x, y] = [p % 420, Math.floor(p / 420)];
        scene.lay(x, y, WHITE, 0.25 + 0.1 * Math.sin(Math.hypot(x - ax, y - ay) / 9));
        scene.damage[p] = 1;
      });
    }
    const found = survey(scene.picture, { kinds: ['lines'] });
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 420).f1).toBeGreaterThan(0.8);
  });

  test('a straight line that stands plumb within the picture is less surely a scratch: poles and masts do', () => {
    const scoreOf = (aside: number): number => {
      const scene = new Scene(420, 320, 8);
      const way = curve(40, (t) => [200 + aside * t, 60 + 200 * t]);
      scene.line(way, 3, WHITE);
      const found = survey(scene.picture, { kinds: ['lines'] });
      expect(found).toHaveLength(1);
      return found[0]!.score;
    };
    const oddsOf = (score: number): number => Math.log(score / (1 - score));
    expect(oddsOf(scoreOf(70))).toBeGreaterThan(oddsOf(scoreOf(0)) + 1);
  });

  test('a mesh is one finding whose wires are all followed', () => {
    const scene = new Scene(600, 440, 8);
    for (const slope of [1, -1])
      for (let at = -700; at < 1300; at += 62)
        scene.line(
          curve(50, (t) => [at + 640 * t, 220 - slope * (220 - 460 * t) + 6 * Math.sin(3 * t)]),
          5,
          [64, 66, 65],
        );
    const found = survey(scene.picture, { kinds: ['mesh'] });
    expect(found).toHaveLength(1);
    expect(found[0]!.parts.length).toBeGreaterThan(20);
    expect(found[0]!.size).toBeGreaterThan(3);
    expect(found[0]!.size).toBeLessThan(8);
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 600).f1).toBeGreaterThan(0.93);
  });

  test('the wire that a mesh hangs on is part of it', () => {
    const scene = new Scene(600, 440, 8);
    const [tone, bare] = [[64, 66, 65], new Scene(600, 440, 8)];
    for (const s of [scene, bare])
      for (const slope of [1, -1])
        for (let at = -700; at < 1300; at += 62)
          s.line(
            curve(50, (t) => [at + 640 * t, 220 - slope * (220 - 460 * t)]),
            5,
            tone,
          );
    scene.line(
      curve(80, (t) => [-5 + 610 * t, 150 + 8 * t + 3 * Math.sin(3 * t)]),
      5,
      tone,
    );
    const found = survey(scene.picture, { kinds: ['mesh'] });
    const mask = maskFrom(found, scene.picture);
    const hung = scene.damage.map((v, p) => (v && !bare.damage[p] ? 1 : 0));
    const [all, met] = hung.reduce(([n, m], v, p) => [n! + v, m! + (v && mask[p] ? 1 : 0)], [0, 0]);
    expect(all).toBeGreaterThan(1500);
    expect(met).toBeGreaterThan(0.9 * all!);
    expect(agreement(mask, scene.damage, 600).f1).toBeGreaterThan(0.93);
  });

  test('writing is ink, and its strokes are no scratches', () => {
    const scene = new Scene(520, 400, 12);
    write(scene, [90, 200, 310], BLUE);
    const found = survey(scene.picture, { kinds: ['ink', 'lines'] });
    expect(found.filter(({ kind }) => kind === 'lines')).toEqual([]);
    expect(agreement(maskFrom(found, scene.picture), scene.damage, 520).f1).toBeGreaterThan(0.85);
  });

  test('letters on a sign are ink that stood before the camera, those over the picture are not', () => {
    const scene = new Scene(520, 400, 12);
    for (let y = 110; y < 290; y++) for (let x = 110; x < 410; x++) scene.lay(x, y, [24, 44, 38]);
    write(scene, [155, 225], [236, 238, 240], [145, 195, 245, 295, 345]);
    const told = survey(scene.picture, { kinds: ['ink'] });
    expect(told.length).toBeGreaterThan(0);
    expect(told.every(({ onBoard }) => onBoard)).toBe(true);
    const over = new Scene(520, 400, 12);
    write(over, [90, 200, 310], BLUE);
    const written = survey(over.picture, { kinds: ['ink'] });
    expect(written.length).toBeGreaterThan(0);
    expect(written.some(({ onBoard }) => onBoard)).toBe(false);
  });

  test('white writing is ink on a pale ground of a print of one tone: its colour tells it', () => {
    const scene = new Scene(520, 400, 12);
    for (let y = 0; y < 300; y++)
      for (let x = 0; x < 520; x++) scene.lay(x, y, [246, 242, 228], 0.95);
    scene.damage.fill(0);
    write(scene, [60, 150, 240], [250, 250, 250]);
    const found = agreement(maskOf(scene.picture, 'ink'), scene.damage, 520);
    expect(found.f1).toBeGreaterThan(0.85);
  });

  test('a long sagging cable is a wire', () => {
    const scene = new Scene(520, 360, 2);
    scene.line(
      curve(80, (t) => [-4 + 528 * t, 70 + 60 * t + 90 * t * (1 - t)]),
      3.5,
      [30, 31, 34],
    );
    const wire = agreement(maskOf(scene.picture, 'wires'), scene.damage, 520).f1;
    expect(wire).toBeGreaterThan(0.9);
  });

  test('a picture turned by 90 degrees shows the same', () => {
    for (const [scene, kind] of [
      [dusty(WHITE), 'specks'],
      [hairy(BLACK), 'lines'],
    ] as const) {
      const upright = maskOf(scene.picture, kind);
      const lying = maskOf(turned(scene.picture), kind);
      const back = new Uint8Array(upright.length);
      for (let y = 0; y < scene.height; y++)
        for (let x = 0; x < scene.width; x++)
          back[y * scene.width + x] = lying[(scene.width - 1 - x) * scene.height + y]!;
      expect(agreement(back, upright, scene.width).f1).toBeGreaterThan(0.93);
    }
  });

  test('the same picture gives the same findings, and more sensitivity more of them', () => {
    const { picture } = dusty([200, 199, 196]);
    const [once, again] = [0, 1].map(() => survey(picture, { kinds: ['specks'] }));
    expect(once!.length).toBeGreaterThan(5);
    expect(again!.map((f) => [f.box, f.score, f.contrast])).toEqual(
      once!.map((f) => [f.box, f.score, f.contrast]),
    );
    const counts = [0.1, 0.5, 0.9].map(
      (sensitivity) => survey(picture, { kinds: ['specks'], sensitivity }).length,
    );
    expect(counts[0]!).toBeLessThanOrEqual(counts[1]!);
    expect(counts[1]!).toBeLessThanOrEqual(counts[2]!);
    expect(counts[2]!).toBeGreaterThan(counts[0]!);
  });

  test('a cancelled survey ends', () => {
    const signal = { aborted: true };
    expect(() => survey(dusty(WHITE).picture, {}, { signal })).toThrow('cancelled');
  });
});
