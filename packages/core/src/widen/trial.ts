import { tellsOf } from '../proof/proof.js';
import type { TellKind } from '../proof/tell.js';
import { greyOf } from '../raster/grey.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Sides } from './canvas.js';

/** Ways of getting more background. */
export type WidenWay = 'fill' | 'stretch';

/** One way, tried. */
export interface WidenTrial {
  readonly how: WidenWay;
  readonly picture: Raster;
  /** Fine slopes of the new sides beside those of the background next to them; 1 is alike. */
  readonly texture: number;
  /** What would give it away, worst first. */
  readonly tells: readonly {
    readonly kind: TellKind;
    readonly value: number;
    readonly limit: number;
  }[];
  /** Sum of how far the tells are beyond their limits, and texture off 1 (logarithms); lower is better. */
  readonly score: number;
}

/** What would give a widened picture away. @param sides px that are new in it */
export function judgeWidened(how: WidenWay, picture: Raster, sides: Sides): WidenTrial {
  const strips = stripsOf(picture, sides);
  const tells = tellsOf(
    picture,
    strips.map((r) => pixelsOf(r, picture.width)),
  )
    .filter((t) => !t.faint)
    .map(({ kind, value, limit }) => ({ kind, value, limit }))
    .sort((one, other) => beyond(other) - beyond(one));
  const texture = textureOf(picture, strips);
  const score = tells.reduce((sum, t) => sum + beyond(t), 0) + Math.abs(Math.log(texture));
  return { how, picture, texture, tells, score };
}

function beyond({ value, limit }: { readonly value: number; readonly limit: number }): number {
  return Math.abs(Math.log(value / limit));
}

/** The sides that are new, whole heights left and right. */
function stripsOf({ width, height }: Raster, { left, right, top, bottom }: Sides): Rect[] {
  return [
    { x: 0, y: 0, width: left, height },
    { x: width - right, y: 0, width: right, height },
    { x: left, y: 0, width: width - left - right, height: top },
    { x: left, y: height - bottom, width: width - left - right, height: bottom },
  ].filter((r) => r.width > 0 && r.height > 0);
}

function pixelsOf({ x, y, width, height }: Rect, across: number): Int32Array {
  return Int32Array.from(
    { length: width * height },
    (_, k) => (y + Math.floor(k / width)) * across + x + (k % width),
  );
}

/** Mean slope along the strips beside that just inside of them, as wide. */
function textureOf(picture: Raster, strips: readonly Rect[]): number {
  const grey = greyOf(picture);
  const { width, height } = picture;
  const slope = (rect: Rect): number => {
    let [sum, n] = [0, 0];
    for (let y = Math.max(0, rect.y); y < Math.min(height - 1, rect.y + rect.height); y++)
      for (let x = Math.max(0, rect.x); x < Math.min(width - 1, rect.x + rect.width); x++, n++) {
        const p = y * width + x;
        sum += Math.min(
          24,
          Math.abs(grey[p + 1]! - grey[p]!) + Math.abs(grey[p + width]! - grey[p]!),
        );
      }
    return n ? sum / n : 0;
  };
  let [inside, outside] = [0.01, 0.01];
  for (const r of strips) {
    const upright = r.height === height;
    const away = upright ? (r.x === 0 ? r.width : -r.width) : r.y === 0 ? r.height : -r.height;
    inside += slope(upright ? { ...r, x: r.x + away } : { ...r, y: r.y + away });
    outside += slope(r);
  }
  return outside / inside;
}
