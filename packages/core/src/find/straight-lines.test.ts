import { seededRandom } from '../random/random.js';
import { blurred } from '../raster/plane.js';
import { straightLines } from './straight-lines.js';

const [width, height] = [160, 120];

/** A dark half-plane below a line through a point, slanting by some degrees, with a little noise. */
function edge(lean: number, noise = 2) {
  const random = seededRandom(4);
  const [s, c] = [Math.sin((lean * Math.PI) / 180), Math.cos((lean * Math.PI) / 180)];
  const values = Float32Array.from({ length: width * height }, (_, p) => {
    const [x, y] = [(p % width) - 80, Math.floor(p / width) - 60];
    return (y * c - x * s > 0 ? 60 : 180) + random.between(-noise, noise);
  });
  return blurred({ width, height, values }, 1);
}

test.each([0, 12, 45, 70, 90])(
  'an edge that leans by %d degrees is one line of that lean',
  (lean) => {
    const [line, ...more] = straightLines(edge(lean), 40);
    expect(more).toHaveLength(0);
    expect(Math.abs(line!.lean - lean)).toBeLessThan(1);
    // From border to border, but for the pixel that has no neighbour.
    const most = Math.min(
      width / Math.cos((lean * Math.PI) / 180),
      height / Math.sin((lean * Math.PI) / 180),
    );
    expect(Math.abs(line!.length - most)).toBeLessThan(8);
  },
);

test('a round border and grain are no lines; what is shut is not looked at', () => {
  const round = Float32Array.from({ length: width * height }, (_, p) =>
    Math.hypot((p % width) - 80, Math.floor(p / width) - 60) < 40 ? 60 : 180,
  );
  expect(straightLines(blurred({ width, height, values: round }, 1), 40)).toHaveLength(0);
  const random = seededRandom(9);
  const grain = Float32Array.from({ length: width * height }, () => random.between(90, 160));
  expect(straightLines({ width, height, values: grain }, 40)).toHaveLength(0);
  expect(straightLines(edge(30), 40, new Uint8Array(width * height).fill(1))).toHaveLength(0);
});
