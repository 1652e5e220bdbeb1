import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import type { Border } from './border.js';
import { borderOf } from './border.js';
import { believeFit, matchTone } from './tone-match.js';

const [WIDTH, HEIGHT] = [60, 50];
type Tone = (x: number, y: number, c: number) => number;

const draw = (tone: Tone): Raster => {
  const picture = createRaster(WIDTH, HEIGHT, 3);
  for (let p = 0; p < WIDTH * HEIGHT; p++)
    for (let c = 0; c < 3; c++)
      picture.data[3 * p + c] = Math.round(tone(p % WIDTH, Math.floor(p / WIDTH), c));
  return picture;
};

/** A box's border, or that of all that is asked for. */
function border(
  picture: Tone,
  donor: Tone,
  inSite = (x: number, y: number) => x >= 12 && x < 48 && y >= 10 && y < 40,
): Border {
  const site = Uint8Array.from({ length: WIDTH * HEIGHT }, (_, p) =>
    inSite(p % WIDTH, Math.floor(p / WIDTH)) ? 1 : 0,
  );
  const valid = new Uint8Array(site.length).fill(1);
  const coverage = Float32Array.from(site);
  return borderOf({ below: draw(picture), donor: draw(donor), valid, coverage }, site);
}

/** A lively donor: what it holds has to go up and down for a gain to show. */
const random = seededRandom(12);
const lively = Float64Array.from({ length: WIDTH * HEIGHT }, () => random.between(60, 180));
const donor: Tone = (x, y, c) => lively[y * WIDTH + x]! + 5 * c;

test('pairs are told wherever the picture goes on beyond the site, each with both tones', () => {
  const whole = border(() => 90, donor);
  expect(whole.count).toBe(2 * (36 + 30));
  const atEdge = border(
    () => 90,
    donor,
    (x, y) => x < 10 && y < 8,
  );
  expect(atEdge.count).toBe(10 + 8);
  for (let k = 0; k < whole.count; k++) {
    const [p, q] = [whole.inside[k]!, whole.outside[k]!];
    expect([1, WIDTH]).toContain(Math.abs(p - q));
    expect(whole.picture[3 * k + 1]).toBe(90);
    expect(whole.donor[3 * k + 1]).toBe(Math.round(donor(q % WIDTH, Math.floor(q / WIDTH), 1)));
  }
});

test('gain, bias and slopes that were put on come out again', () => {
  const gain = [0.9, 1.1, 1];
  const picture: Tone = (x, y, c) =>
    gain[c]! * Math.round(donor(x, y, c)) + 8 + (4 * (2 * x)) / (WIDTH - 1) - 4;
  const { match, trust } = matchTone(border(picture, donor), WIDTH, HEIGHT);
  for (let c = 0; c < 3; c++) {
    // Drawn a little towards 1, since that is what gains usually are.
    expect(Math.abs(match.gain[c]! - gain[c]!)).toBeLessThan(0.05);
    // Where the donor's tone is usual, 120, the whole of it says as much as was put on.
    const there = match.gain[c]! * 120 + match.bias[c]!;
    expect(Math.abs(there - (gain[c]! * 120 + 8))).toBeLessThan(1.5);
    expect(Math.abs(match.slopeX[c]! - 4)).toBeLessThan(1.5);
    expect(Math.abs(match.slopeY[c]!)).toBeLessThan(1.5);
  }
  expect(Math.min(...trust)).toBeGreaterThan(0.5);
});

test('pairs across an edge are not trusted and do not pull', () => {
  // The right fifth of the surroundings is another thing, far darker.
  const picture: Tone = (x, y, c) => (x >= 46 ? 20 : donor(x, y, c) + 12);
  const made = border(picture, donor);
  const { match, trust } = matchTone(made, WIDTH, HEIGHT);
  for (let c = 0; c < 3; c++)
    expect(Math.abs(match.gain[c]! * 120 + match.bias[c]! - 132)).toBeLessThan(2.5);
  for (let k = 0; k < made.count; k++) {
    const x = made.outside[k]! % WIDTH;
    if (x < 44) expect(trust[k]).toBeGreaterThan(0.5);
  }
  const across = Array.from(trust).filter((_, k) => made.outside[k]! % WIDTH >= 46);
  expect(across.length).toBeGreaterThan(30);
  // Where the donor happens to be as dark the pair may pass; that is rare.
  expect(across.filter((t) => t > 0.5).length).toBeLessThan(0.1 * across.length);
});

test('no more is believed than grain could feign: what was never pasted stays', () => {
  const noise = seededRandom(5);
  const own = Float64Array.from({ length: WIDTH * HEIGHT }, () => noise.between(-12, 12));
  const grainy: Tone = (x, y) => 120 + own[y * WIDTH + x]!;
  const flat: Tone = () => 120;
  const same = border(grainy, flat);
  const unsure = believeFit(same, matchTone(same, WIDTH, HEIGHT));
  for (let c = 0; c < 3; c++)
    expect(Math.abs(120 * unsure.match.gain[c]! + unsure.match.bias[c]! - 120)).toBeLessThan(0.6);
  const pasted = border((x, y, c) => grainy(x, y, c) + 30, flat);
  const sure = believeFit(pasted, matchTone(pasted, WIDTH, HEIGHT));
  for (let c = 0; c < 3; c++)
    expect(120 * sure.match.gain[c]! + sure.match.bias[c]!).toBeGreaterThan(147);
});

test('a site without any border has its donor as it is', () => {
  const none = border(
    () => 90,
    donor,
    () => true,
  );
  expect(none.count).toBe(0);
  const fit = matchTone(none, WIDTH, HEIGHT);
  expect(fit.match.gain).toEqual([1, 1, 1]);
  expect(believeFit(none, fit)).toBe(fit);
});
