import { toEncoded, toLinear } from '../colour/srgb.js';
import { curveThrough } from './curve.js';
import { levelled } from './levels.js';
import type { ToneAct, ToneActOf, Triple } from './step.js';

type Channel = 0 | 1 | 2;
type OneValue = (v: number) => number;

/** Encoded mid-grey: 18 % of the light. */
const MIDDLE = toEncoded(0.18);

/** What an act does to each channel by itself; null for acts that look at more than one value. */
export function channelFunctions(act: ToneAct): readonly [OneValue, OneValue, OneValue] | null {
  const each = (f: (c: Channel) => OneValue): [OneValue, OneValue, OneValue] => [f(0), f(1), f(2)];
  switch (act.kind) {
    case 'levels': {
      const one =
        (c: Channel): OneValue =>
        (v) =>
          levelled(levelled(v, act.all), act.channels[c]);
      if (colours(act)) return each(one);
      const same = one(0);
      return each(() => same);
    }
    case 'curve': {
      const curve = clamped(curveThrough(act.points));
      const on = ['red', 'green', 'blue'].indexOf(act.channel);
      return each((c) => (on < 0 || on === c ? curve : (v) => v));
    }
    case 'light': {
      if (act.warmth === 0 && act.tint === 0) {
        const same = lit(act, 0);
        return each(() => same);
      }
      return each((c) => lit(act, c));
    }
    case 'balance':
      return each((c) => balanced(act, c));
    default:
      return null;
  }
}

/** Whether an act gives a grey picture colour. */
export function colours(act: ToneAct): boolean {
  switch (act.kind) {
    case 'levels':
      return act.channels.some((l) => JSON.stringify(l) !== JSON.stringify(act.channels[0]));
    case 'curve':
      return act.channel !== 'all';
    case 'light':
      return act.warmth !== 0 || act.tint !== 0;
    case 'balance':
      return [act.shadows, act.middle, act.highlights].some(([r, g, b]) => r !== g || g !== b);
    case 'toning':
      return act.chroma !== 0;
    case 'look':
      return true;
    default:
      return false;
  }
}

/** Exposure and white balance are gains of the light; contrast turns about mid-grey and keeps black and white. */
function lit({ exposure, contrast, warmth, tint }: ToneActOf<'light'>, c: Channel): OneValue {
  const cast = c === 0 ? warmth / 2 - tint / 6 : c === 1 ? tint / 3 : -warmth / 2 - tint / 6;
  const gain = Math.pow(2, exposure + cast);
  const power = Math.pow(2, contrast);
  const turned: OneValue = (v) =>
    v < MIDDLE
      ? MIDDLE * Math.pow(v / MIDDLE, power)
      : 1 - (1 - MIDDLE) * Math.pow((1 - v) / (1 - MIDDLE), power);
  return (v) => {
    const light = gain === 1 ? v : Math.min(1, toEncoded(toLinear(v) * gain));
    return power === 1 ? light : turned(light);
  };
}

/** Half of what is asked for at the most; the three ranges overlap and leave black and white where they are. */
function balanced({ shadows, middle, highlights }: ToneActOf<'balance'>, c: Channel): OneValue {
  const at = (t: Triple): number => t[c] / 2;
  return clamped((v) => {
    const low = (1 - v) * (1 - v) * v * 4;
    const high = v * v * (1 - v) * 4;
    const mid = 4 * v * (1 - v) - (low + high) / 2;
    return v + (at(shadows) * low + at(middle) * mid + at(highlights) * high) / 2;
  });
}

function clamped(f: OneValue): OneValue {
  return (v) => Math.min(1, Math.max(0, f(v)));
}
