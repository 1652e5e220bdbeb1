import type { Layer } from '../raster/layers.js';
import { paperLike } from './paper.js';

/** A sky of one colour with a strip of another across its middle row. */
function layerOf(sky: readonly number[], strip: readonly number[]): Layer {
  const plane = (c: number) => ({
    width: 20,
    height: 9,
    values: Float32Array.from({ length: 180 }, (_, p) =>
      Math.floor(p / 20) === 4 ? strip[c]! : sky[c]!,
    ),
  });
  return { grey: plane(0), colours: [0, 1, 2].map(plane) };
}

const line = {
  xs: Float32Array.from({ length: 12 }, (_, k) => 4 + k),
  ys: new Float32Array(12).fill(4),
};

describe('paper along a line', () => {
  test('is nearest where its colour is, however bright the ground', () => {
    // A yellowed sky is as bright as paper, and less blue.
    const paper = paperLike(layerOf([244, 236, 190], [240, 240, 238]), line);
    expect(paper.at(10, 4)).toBe(255);
    expect(paper.at(10, 1)).toBe(255 - 48);
    expect([paper.width, paper.height]).toEqual([20, 9]);
  });

  test('is told between pixels, and beyond the border as at it', () => {
    const paper = paperLike(layerOf([140, 140, 140], [240, 240, 240]), line);
    expect(paper.at(10, 3.5)).toBeCloseTo(205, 5);
    expect(paper.at(-8, 4)).toBe(255);
    expect(paper.at(10, 60)).toBe(155);
  });

  test('of a grey picture goes by its grey; dirt on the line does not count', () => {
    const { grey } = layerOf([90, 0, 0], [230, 0, 0]);
    for (const x of [5, 9, 13]) grey.values[4 * 20 + x] = 20;
    const paper = paperLike({ grey, colours: [] }, line);
    expect(paper.at(7, 4)).toBe(255);
    expect(paper.at(7, 0)).toBe(255 - 140);
    expect(paper.at(9, 4)).toBe(255 - 210);
  });
});
