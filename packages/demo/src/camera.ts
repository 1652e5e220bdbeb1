import type { Homography, Raster } from '@tersum/core';
import {
  createRaster,
  frameOf,
  homographyOf,
  inverseOf,
  resampleBy,
  seededRandom,
  through,
  toEncoded,
  toLinear,
} from '@tersum/core';

const EVERYWHERE = { x: -1e6, y: -1e6, width: 2e6, height: 2e6 };

/**
 * Hand-held frames of a wide view, as a simulated camera that turns from left to right would take them, each with its own
 * exposure and the lens's falloff.
 * @param view the wide view, plain projection @param across its angle across, degrees
 */
export function frames(view: Raster, across: number, count: number, seed: number): Raster[] {
  const random = seededRandom(seed);
  const focal = view.width / 2 / Math.tan((across * Math.PI) / 360);
  const [width, height] = [Math.round(view.width / 2.4), Math.round(view.height * 0.66)];
  const half = Math.atan(width / 2 / focal);
  // So far in that no corner looks past the view.
  const end = (across * Math.PI) / 360 - half * 1.12;
  const small = (): number => random.between(-100, 100) / 100;
  return Array.from({ length: count }, (_, k) => {
    const yaw = count > 1 ? -end + (2 * end * k) / (count - 1) : 0;
    const [pitch, roll] = [0.008 * small(), 0.012 * small()];
    const point = (x: number, y: number, to: Float64Array): void => {
      const [a, b] = [x - (width - 1) / 2, y - (height - 1) / 2];
      const [u, v] = [
        a * Math.cos(roll) - b * Math.sin(roll),
        a * Math.sin(roll) + b * Math.cos(roll),
      ];
      const down = v * Math.cos(pitch) + focal * Math.sin(pitch);
      const ahead = focal * Math.cos(pitch) - v * Math.sin(pitch);
      const z = ahead * Math.cos(yaw) - u * Math.sin(yaw);
      to[0] = (view.width - 1) / 2 + (focal * (u * Math.cos(yaw) + ahead * Math.sin(yaw))) / z;
      to[1] = (view.height - 1) / 2 + (focal * down) / z;
    };
    const { raster } = resampleBy(
      view,
      frameOf(view),
      point,
      1,
      { x: 0, y: 0, width, height },
      frameOf(view),
    );
    return lit(raster, 1 + 0.12 * small(), (x, y) => 1 - 0.24 * squared(x, y, width, height));
  });
}

/**
 * Photographs of one print under a lamp that is moved between them, as a simulated copy stand would take them: each with a
 * reflection in another place and seen a little from the side.
 * @param reflections false leaves the reflections out, so that what takes them off can be measured
 */
export function copyShots(
  print: Raster,
  count: number,
  seed: number,
  reflections = true,
): Raster[] {
  const { width, height } = standSize(print);
  return copyMaps(print, count, seed).map((map, k) => {
    const target = { x: 0, y: 0, width, height };
    const seen = resampleBy(
      print,
      frameOf(print),
      (x, y, to) => {
        const [u, v] = through(map, [x, y]);
        to[0] = u;
        to[1] = v;
      },
      2,
      target,
      EVERYWHERE,
    ).raster;
    // The lamp stands on another side each time; its reflection with it.
    const angle = (2 * Math.PI * (k + 0.3)) / count;
    const [gx, gy] = [0.5 + 0.24 * Math.cos(angle), 0.5 + 0.22 * Math.sin(angle)];
    const shot = lit(
      seen,
      1,
      (x, y) =>
        0.94 + 0.1 * ((x / width - 0.5) * Math.cos(angle) + (y / height - 0.5) * Math.sin(angle)),
    );
    return reflections ? glared(shot, gx * width, gy * height, 0.15 * width, 0.11 * height) : shot;
  });
}

/** Takes the px of each of the copy stand's photographs to the print's. */
export function copyMaps(print: Raster, count: number, seed: number): Homography[] {
  const random = seededRandom(seed);
  const { width, height } = standSize(print);
  const small = (): number => random.between(-100, 100) / 100;
  return Array.from({ length: count }, () => {
    const corners = [
      [60, 60],
      [width - 60, 60],
      [width - 60, height - 60],
      [60, height - 60],
    ].map(([x, y]) => [x! + 16 * small(), y! + 16 * small()] as const);
    const sheet = [
      [0, 0],
      [print.width - 1, 0],
      [print.width - 1, print.height - 1],
      [0, print.height - 1],
    ] as const;
    return inverseOf(homographyOf(sheet, corners));
  });
}

function standSize(print: Raster): { width: number; height: number } {
  return { width: Math.round(print.width / 2 + 120), height: Math.round(print.height / 2 + 120) };
}

function squared(x: number, y: number, width: number, height: number): number {
  return ((x - width / 2) ** 2 + (y - height / 2) ** 2) / ((width / 2) ** 2 + (height / 2) ** 2);
}

/** Brought to another light, linearly. */
function lit(picture: Raster, gain: number, light: (x: number, y: number) => number): Raster {
  const { width, height, channels, data } = picture;
  const out = createRaster(width, height, channels);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const by = gain * light(x, y);
      for (let c = 0; c < channels; c++, i++)
        out.data[i] = Math.round(255 * toEncoded(Math.min(1, toLinear(data[i]! / 255) * by)));
    }
  return out;
}

function glared(picture: Raster, cx: number, cy: number, rx: number, ry: number): Raster {
  const { width, height, channels, data } = picture;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const far = ((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2;
      const glare = 170 * Math.exp(-far * far);
      for (let c = 0; c < channels; c++, i++) data[i] = Math.min(255, data[i]! + glare);
    }
  return picture;
}
