import {
  boxMean,
  convertRaster,
  join,
  layerAt,
  stretched,
  stretchPreview,
  subjectOf,
} from '@tersum/core';
import type { Raster } from '@tersum/core';
import { frames, VIEW } from '@tersum/demo';
import { demoPicture } from './pictures.js';

const ROUNDS = 3;

/** Joining simulated frames, and stretching a 3-megapixel picture; times beside a 5 x 5 mean of the same pixels. */
export async function benchWiden(): Promise<void> {
  const view = await demoPicture('huts-wide.jpg');
  const shots = frames(view, VIEW.across, 3, 7);
  const focal = view.width / 2 / Math.tan((VIEW.across * Math.PI) / 360);
  let best = Infinity;
  let joined = join(shots);
  for (let k = 0; k < ROUNDS; k++) {
    const start = performance.now();
    joined = join(shots);
    best = Math.min(best, performance.now() - start);
  }
  const plain = meanTime(joined.picture);
  const pixels = shots.reduce((sum, s) => sum + s.width * s.height, 0) / 1e6;
  console.log(
    `join, 3 frames, ${pixels.toFixed(1)} MP: ${(best / 1000).toFixed(2)} s, ${(best / plain).toFixed(0)} times a 5 x 5 mean; ` +
      `${joined.projection}, focal length off by ${((100 * Math.abs(joined.focal! - focal)) / focal).toFixed(2)} %`,
  );

  const jug = await demoPicture('jug-scratched.jpg');
  const picture = convertRaster(enlarged(jug, 1414, 2121), 3, 'u8');
  const subject = subjectOf(picture) ?? new Uint8Array(picture.width * picture.height);
  const more = Math.round(picture.width * 0.15);
  const start = performance.now();
  const done = stretched(picture, { left: more, right: more, top: 0, bottom: 0 }, subject);
  const ms = performance.now() - start;
  const ratio =
    slope(done.picture, 0, Math.round(0.2 * done.picture.width)) /
    slope(picture, 0, Math.round(0.1 * picture.width));
  console.log(
    `stretch by 30 %, ${((picture.width * picture.height) / 1e6).toFixed(1)} MP: ${(ms / 1000).toFixed(2)} s (bar: 4 s), ` +
      `${(ms / meanTime(picture)).toFixed(0)} times a 5 x 5 mean; texture ${ratio.toFixed(2)} (bar: 0.9-1.1), splices ${done.splices.toFixed(2)}, lines broken ${done.broken}`,
  );
  previewed(picture, subject);
}

/** px of the longer side of the copy that is stretched while an edge is dragged. */
const COPY = 300;

/** Dragging an edge: the copy laid again for every wish. */
function previewed(picture: Raster, subject: Uint8Array): void {
  const factor = Math.round(Math.max(picture.width, picture.height) / COPY);
  const [w, h] = [picture.width, picture.height].map((v) => Math.floor(v / factor)) as [
    number,
    number,
  ];
  const copy = enlarged(picture, w, h);
  const kept = Uint8Array.from({ length: w * h }, (_, p) => {
    const [x, y] = [p % w, Math.floor(p / w)];
    return subject[
      Math.floor((y + 0.5) * factor) * picture.width + Math.floor((x + 0.5) * factor)
    ]!;
  });
  const preview = stretchPreview(copy, kept, factor);
  const times: number[] = [];
  for (let k = 1; k <= 60; k++) {
    const start = performance.now();
    preview({ left: 20, right: k, top: 0, bottom: 0 });
    times.push(performance.now() - start);
  }
  const sorted = times.slice(1).sort((a, b) => a - b);
  console.log(
    `dragging an edge, copy ${w} x ${h}: first ${times[0]!.toFixed(0)} ms, then median ` +
      `${sorted[sorted.length >> 1]!.toFixed(1)} ms, p95 ${sorted[Math.floor(0.95 * sorted.length)]!.toFixed(1)} ms a frame`,
  );
}

function meanTime(picture: Raster): number {
  const { grey } = layerAt(picture, 0);
  const start = performance.now();
  for (let k = 0; k < 3; k++) boxMean(grey, 2);
  return performance.now() - start;
}

/** Mean slope across, in the upper half, from one column to another. */
function slope({ data, width, height, channels }: Raster, from: number, to: number): number {
  let [sum, n] = [0, 0];
  for (let y = 0; y < height / 3; y++)
    for (let x = from; x < to; x++, n++)
      sum += Math.abs(data[(y * width + x + 1) * channels]! - data[(y * width + x) * channels]!);
  return sum / n;
}

/** Nearest samples, so that grain is kept. */
function enlarged(picture: Raster, width: number, height: number): Raster {
  const { channels } = picture;
  const data = new Uint8Array(width * height * channels);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const u = Math.floor((x * picture.width) / width);
      const v = Math.floor((y * picture.height) / height);
      for (let c = 0; c < channels; c++)
        data[(y * width + x) * channels + c] =
          picture.data[(v * picture.width + u) * channels + c]!;
    }
  return { width, height, channels, data };
}
