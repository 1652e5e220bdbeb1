import { toEncoded, toLinear } from '../colour/srgb.js';
import { strokesCoverage } from './mask.js';
import { squaredRadius } from './falloff.js';
import { lookupOf, passThrough } from './lookup.js';
import type { Raster } from '../raster/raster.js';
import type { ToneActOf, TonePlace } from './step.js';

/** Light that falls off towards the corners made even, in place. */
export function flatten(region: Raster, { falloff }: ToneActOf<'flatten'>, place: TonePlace): void {
  const { width, height, channels, data } = region;
  for (let y = 0, i = 0; y < height; y++) {
    const v = place.y + (y + 0.5) * place.scale - 0.5;
    for (let x = 0; x < width; x++) {
      const u = place.x + (x + 0.5) * place.scale - 0.5;
      const light = 1 - falloff * squaredRadius(u, v, place.width, place.height);
      for (let c = 0; c < channels; c++, i++) data[i] = Math.min(1, data[i]! / light);
    }
  }
}

/** How soft the ends of the range of tones are that strokes work on, 0..1. */
const ENDS = 0.08;

/** Lightens or darkens along strokes, in place, by stops of light; only tones within the limits. */
export function lightStrokes(region: Raster, act: ToneActOf<'strokes'>, place: TonePlace): void {
  const { channels } = region;
  const data = region.data as Float32Array;
  const cover = strokesCoverage(act.strokes, act.softness, region, place);
  const gain = Math.pow(2, act.stops);
  const changed = data.slice();
  const table = lookupOf((v) => Math.min(1, toEncoded(toLinear(v) * gain)));
  passThrough(changed, [table], 1);
  const [low, high] = act.between;
  for (let p = 0, i = 0; p < cover.length; p++, i += channels) {
    if (cover[p] === 0) continue;
    const grey =
      channels === 1 ? data[i]! : 0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!;
    const within = Math.min(ramp((grey - low) / ENDS + 1), ramp((high - grey) / ENDS + 1));
    const share = cover[p]! * within;
    for (let c = 0; c < channels; c++) data[i + c]! += (changed[i + c]! - data[i + c]!) * share;
  }
}

function ramp(t: number): number {
  const k = t < 0 ? 0 : t > 1 ? 1 : t;
  return k * k * (3 - 2 * k);
}
