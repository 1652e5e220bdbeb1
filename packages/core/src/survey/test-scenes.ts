import type { Random } from '../random/random.js';
import { seededRandom } from '../random/random.js';
import type { Layer } from '../raster/layers.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';

/** A made-up photograph: soft shapes in grey-green with fine grain, and what is laid over it. */
export class Scene {
  readonly picture: Raster;
  /** 1 where something was laid over. */
  readonly damage: Uint8Array;
  private readonly random: Random;

  constructor(
    readonly width: number,
    readonly height: number,
    seed = 1,
  ) {
    this.random = seededRandom(seed);
    this.picture = createRaster(width, height, 3);
    this.damage = new Uint8Array(width * height);
    const waves = Array.from({ length: 6 }, () => ({
      x: this.random.between(-40, 40) / 2000,
      y: this.random.between(-40, 40) / 2000,
      at: this.random.between(0, 60) / 10,
    }));
    for (let y = 0, p = 0; y < height; y++)
      for (let x = 0; x < width; x++, p++) {
        const soft = waves.reduce((sum, w) => sum + Math.sin(w.x * x + w.y * y + w.at), 0);
        const v = 118 + 9 * soft + this.random.between(-3, 3);
        for (let c = 0; c < 3; c++) this.picture.data[3 * p + c] = v + [4, 2, -8][c]!;
      }
  }

  /** Lays a colour over a pixel, by a share 0..1. */
  lay(x: number, y: number, colour: readonly number[], share = 1): void {
    if (x < 0 || y < 0 || x >= this.width || y >= this.height || share <= 0) return;
    const p = y * this.width + x;
    for (let c = 0; c < 3; c++) {
      const i = 3 * p + c;
      this.picture.data[i] = Math.round(this.picture.data[i]! * (1 - share) + colour[c]! * share);
    }
    if (share > 0.35) this.damage[p] = 1;
  }

  disc(cx: number, cy: number, r: number, colour: readonly number[]): void {
    for (let y = Math.floor(cy - r - 1); y <= cy + r + 1; y++)
      for (let x = Math.floor(cx - r - 1); x <= cx + r + 1; x++)
        this.lay(x, y, colour, Math.min(1, Math.max(0, r + 0.5 - Math.hypot(x - cx, y - cy))));
  }

  /** A line of a width along points, each pixel laid once. */
  line(
    points: readonly (readonly [number, number])[],
    width: number,
    colour: readonly number[],
  ): void {
    const share = new Map<number, number>();
    for (let i = 0; i + 1 < points.length; i++) {
      const [[ax, ay], [bx, by]] = [points[i]!, points[i + 1]!];
      const reach = width / 2 + 1;
      for (let y = Math.floor(Math.min(ay, by) - reach); y <= Math.max(ay, by) + reach; y++)
        for (let x = Math.floor(Math.min(ax, bx) - reach); x <= Math.max(ax, bx) + reach; x++) {
          if (x < 0 || y < 0 || x >= this.width || y >= this.height) continue;
          const length = (bx - ax) ** 2 + (by - ay) ** 2;
          const t = Math.min(
            1,
            Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length),
          );
          const d = Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
          const s = Math.min(1, Math.max(0, width / 2 + 0.5 - d));
          const p = y * this.width + x;
          if (s > (share.get(p) ?? 0)) share.set(p, s);
        }
    }
    for (const [p, s] of share) this.lay(p % this.width, Math.floor(p / this.width), colour, s);
  }

  /** Random whole numbers from the scene's own stream. */
  between(from: number, to: number): number {
    return this.random.between(from, to);
  }
}

/** Points of a curve by a formula. */
export function curve(n: number, at: (t: number) => readonly [number, number]): [number, number][] {
  return Array.from({ length: n + 1 }, (_, k) => {
    const [x, y] = at(k / n);
    return [x, y];
  });
}

/** Precision, recall and their harmonic mean, both within 2 px. */
export function agreement(
  found: Uint8Array,
  truth: Uint8Array,
  width: number,
): { precision: number; recall: number; f1: number } {
  const share = (of: Uint8Array, within: Uint8Array): number => {
    const wide = widened(within, width);
    let [all, met] = [0, 0];
    for (let p = 0; p < of.length; p++)
      if (of[p]) {
        all++;
        if (wide[p]) met++;
      }
    return all ? met / all : 0;
  };
  const [precision, recall] = [share(found, truth), share(truth, found)];
  return { precision, recall, f1: (2 * precision * recall) / (precision + recall || 1) };
}

function widened(mask: Uint8Array, width: number): Uint8Array {
  const out = new Uint8Array(mask.length);
  const height = mask.length / width;
  for (let p = 0; p < mask.length; p++) {
    if (!mask[p]) continue;
    const [x, y] = [p % width, Math.floor(p / width)];
    for (let v = Math.max(0, y - 2); v <= Math.min(height - 1, y + 2); v++)
      out.fill(1, v * width + Math.max(0, x - 2), v * width + Math.min(width - 1, x + 2) + 1);
  }
  return out;
}

export type Colour = readonly [red: number, green: number, blue: number];

/** A layer in colour, each pixel as told; its grey is green. */
export function colouredLayer(
  width: number,
  height: number,
  colourAt: (x: number, y: number) => Colour,
): Layer {
  const all = Array.from({ length: width * height }, (_, p) =>
    colourAt(p % width, Math.floor(p / width)),
  );
  const colours = [0, 1, 2].map((c) => ({
    width,
    height,
    values: Float32Array.from(all, (colour) => colour[c]!),
  }));
  return { grey: colours[1]!, colours };
}
