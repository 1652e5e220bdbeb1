import { placeAt, placeOf, sightOf } from './place.js';

const FRAME = { x: 0, y: 0, width: 1800, height: 1200 };
const SIZE = { width: 37, height: 36 };

test('a place is its box with a little around it, and never less than can be told', () => {
  expect(placeOf({ x: 10, y: 20, width: 100, height: 40 })).toEqual({ x: 60, y: 40, side: 130 });
  expect(placeAt(5, 6, 3)).toEqual({ x: 5, y: 6, side: 1.3 * 24 });
});

test('a place is seen in the middle, and moved inwards at the border', () => {
  expect(sightOf({ x: 900, y: 600, side: 72 }, SIZE, FRAME)).toEqual({
    x: 900,
    y: 600,
    zoom: 0.5,
    turn: 0,
  });
  const corner = sightOf({ x: 3, y: 1199, side: 72 }, SIZE, FRAME);
  expect(corner).toMatchObject({ x: 37, y: 1164 });
  const widened = { ...FRAME, x: -200, width: 2000 };
  expect(sightOf({ x: -150, y: 600, side: 72 }, SIZE, widened).x).toBe(-150);
});

test('what is as large as the picture fills its place', () => {
  const { zoom, y } = sightOf({ x: 900, y: 600, side: 2340 }, SIZE, FRAME);
  expect(zoom).toBeCloseTo(36 / 1200, 12);
  expect(y).toBe(600);
});
