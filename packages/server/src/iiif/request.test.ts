import { regionOf, sizeOf } from './request.js';

const PICTURE = { width: 300, height: 200 };

test('regions as IIIF Image API 3.0 has them, 4.1', () => {
  expect(regionOf('full', PICTURE)).toEqual({ x: 0, y: 0, width: 300, height: 200 });
  expect(regionOf('square', PICTURE)).toEqual({ x: 50, y: 0, width: 200, height: 200 });
  // The example of the specification: 125,15,120,140 of 300 x 200 px.
  expect(regionOf('125,15,120,140', PICTURE)).toEqual({ x: 125, y: 15, width: 120, height: 140 });
  // What reaches beyond the picture is cropped at its edge.
  expect(regionOf('125,15,200,200', PICTURE)).toEqual({ x: 125, y: 15, width: 175, height: 185 });
  for (const bad of ['400,0,10,10', '0,0,0,0', 'pct:1,2,3,4', '1,2,3', '-1,0,5,5'])
    expect(() => regionOf(bad, PICTURE)).toThrow();
});

test('sizes as IIIF Image API 3.0 has them, 4.2; none larger than it is', () => {
  expect(sizeOf('max', PICTURE)).toEqual(PICTURE);
  expect(sizeOf('150,', PICTURE)).toEqual({ width: 150, height: 100 });
  expect(sizeOf(',150', PICTURE)).toEqual({ width: 225, height: 150 });
  expect(sizeOf('225,100', PICTURE)).toEqual({ width: 225, height: 100 });
  for (const bad of ['360,', ',', '^max', 'pct:50', '0,'])
    expect(() => sizeOf(bad, PICTURE)).toThrow();
});
