import { toEncoded, toLinear } from '../colour/srgb.js';
import { blurred } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { channelOf } from './channels.js';
import { lookupOf, passThrough } from './lookup.js';
import type { ToneActOf, TonePlace } from './step.js';

const LINEAR = lookupOf(toLinear);
const ENCODED = lookupOf(toEncoded);
/** Shares of the full radius that are blurred; what lies between is mixed. */
const STEPS = [0, 0.25, 0.5, 1] as const;

/** A lens's fall-off of focus, in place: sharp within a band or a round place, blurred in linear light beyond. */
export function focus(region: Raster, act: ToneActOf<'focus'>, place: TonePlace): void {
  const sigma = act.radius / place.scale / 2;
  if (sigma < 0.25) return;
  const { width, height, channels } = region;
  const data = region.data as Float32Array;
  const share = blurShare(width, height, act, place);
  passThrough(data, [LINEAR], 1);
  for (let c = 0; c < channels; c++) {
    const sharp = channelOf(region, c);
    const softs = STEPS.map(
      (s) => (s === 0 ? sharp : blurred(sharp, Math.max(0.2, s * sigma))).values,
    );
    for (let p = 0, i = c; p < share.length; p++, i += channels) {
      let k = 0;
      while (k < STEPS.length - 2 && share[p]! > STEPS[k + 1]!) k++;
      const t = (share[p]! - STEPS[k]!) / (STEPS[k + 1]! - STEPS[k]!);
      data[i] = softs[k]![p]! * (1 - t) + softs[k + 1]![p]! * t;
    }
  }
  passThrough(data, [ENCODED], 1);
}

/** Share of the full blur at every pixel. */
function blurShare(
  width: number,
  height: number,
  act: ToneActOf<'focus'>,
  place: TonePlace,
): Float32Array {
  const share = new Float32Array(width * height);
  const turn = (act.turn * Math.PI) / 180;
  const [nx, ny] = [Math.sin(turn), Math.cos(turn)];
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const dx = place.x + (x + 0.5) * place.scale - 0.5 - act.at[0];
      const dy = place.y + (y + 0.5) * place.scale - 0.5 - act.at[1];
      const off =
        act.shape === 'round' ? Math.sqrt(dx * dx + dy * dy) : Math.abs(dx * nx + dy * ny);
      const t = (off - act.sharp) / Math.max(1, act.fade);
      const k = t < 0 ? 0 : t > 1 ? 1 : t;
      share[p] = k * k * (3 - 2 * k);
    }
  return share;
}
