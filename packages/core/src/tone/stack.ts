import type { Raster } from '../raster/raster.js';
import { depthOf } from '../raster/raster.js';
import { channelFunctions, colours } from './channel-acts.js';
import { greyFrom, saturate, tone } from './colour-acts.js';
import { floats, tabulated } from './floats.js';
import { focus } from './focus.js';
import { flatten, lightStrokes } from './light-acts.js';
import type { Lookup } from './lookup.js';
import { look } from './look.js';
import { lookupOf, passThrough } from './lookup.js';
import { maskCoverage } from './mask.js';
import { denoise, despeckle, grain } from './noise-acts.js';
import { relief, sharpen } from './sharpen.js';
import type { ToneAct, TonePlace, ToneStep } from './step.js';

/** Steps that change anything. */
export function activeSteps<S extends ToneStep>(steps: readonly S[]): S[] {
  return steps.filter((s) => s.enabled && s.strength > 0);
}

/** Whether the steps turn a grey picture into a coloured one. */
export function needsColour(steps: readonly ToneStep[]): boolean {
  return activeSteps(steps).some((s) => colours(s.act));
}

/**
 * px of the full picture that must be known round a region for its own pixels to be right.
 * A region that is cut out without them is right in its middle only.
 */
export function reachOf(steps: readonly ToneStep[]): number {
  return activeSteps(steps).reduce((sum, { act, mask }) => {
    const feather = mask && mask.kind !== 'gradient' ? 1.5 * mask.feather + 2 : 0;
    return sum + Math.ceil(Math.max(actReach(act), feather));
  }, 0);
}

function actReach(act: ToneAct): number {
  switch (act.kind) {
    case 'sharpen':
    case 'relief':
      return 3 * act.radius + 2;
    case 'denoise':
      return 2 * act.radius + 1;
    case 'despeckle':
      return act.radius;
    case 'grain':
      return 1.5 * act.size + 2;
    case 'focus':
      return 1.5 * act.radius + 2;
    default:
      return 0;
  }
}

/**
 * A region passed through the tone stack, in order; each step counts by its strength and mask.
 * @param region of any depth, in colour when {@link needsColour}. It is left as it is
 * @param into samples of an earlier result that is no longer needed: taken for this one when they are as many
 * @returns floats 0..1, 1 or 3 channels
 */
export function throughTones(
  region: Raster,
  steps: readonly ToneStep[],
  place: TonePlace,
  into?: Float32Array<ArrayBuffer>,
): Raster {
  const active = activeSteps(steps);
  const [first, ...others] = active;
  const tables = first && isPlain(first) && depthOf(region.data) !== 'f32' && tablesOf(first.act);
  const out = tables ? tabulated(region, tables, into) : floats(region, into);
  for (const step of tables ? others : active) oneStep(out, step, place);
  return out;
}

/** Whether a step counts fully everywhere. */
function isPlain({ strength, mask }: ToneStep): boolean {
  return strength === 1 && !mask;
}

function oneStep(region: Raster, step: ToneStep, place: TonePlace): void {
  const { act, strength, mask } = step;
  const data = region.data as Float32Array;
  const tables = tablesOf(act);
  if (tables && isPlain(step)) {
    passThrough(data, tables, region.channels);
    return;
  }
  const before = isPlain(step) ? null : data.slice();
  if (tables) passThrough(data, tables, region.channels);
  else perform(region, act, place);
  if (before) mix(region, before, strength, mask && maskCoverage(mask, region, place));
}

/** Tables of acts, kept while the act is, since a picture is passed through in strips. */
const kept = new WeakMap<ToneAct, readonly Lookup[] | null>();

function tablesOf(act: ToneAct): readonly Lookup[] | null {
  const known = kept.get(act);
  if (known !== undefined) return known;
  const functions = channelFunctions(act);
  const made = new Map<(v: number) => number, Lookup>();
  const tables =
    functions?.map((f) => {
      const table = made.get(f) ?? lookupOf(f);
      made.set(f, table);
      return table;
    }) ?? null;
  kept.set(act, tables);
  return tables;
}

function mix(
  { channels, data }: Raster,
  before: Float32Array,
  strength: number,
  cover: Float32Array | null,
): void {
  for (let p = 0, i = 0; i < data.length; p++) {
    const share = cover ? strength * cover[p]! : strength;
    for (let c = 0; c < channels; c++, i++) data[i] = before[i]! + (data[i]! - before[i]!) * share;
  }
}

/** An act that looks at more than one value of a pixel, or at more than one pixel. */
function perform(region: Raster, act: ToneAct, place: TonePlace): void {
  const data = region.data as Float32Array;
  const colour = region.channels >= 3;
  switch (act.kind) {
    case 'flatten':
      return flatten(region, act, place);
    case 'saturation':
      return colour ? saturate(data, act) : undefined;
    case 'grey':
      return colour ? greyFrom(data, act) : undefined;
    case 'toning':
      return colour ? tone(data, act) : undefined;
    case 'look':
      return colour ? look(data, act) : undefined;
    case 'strokes':
      return lightStrokes(region, act, place);
    case 'sharpen':
      return sharpen(region, act, place.scale);
    case 'relief':
      return relief(region, act, place.scale);
    case 'denoise':
      return denoise(region, act, place.scale);
    case 'despeckle':
      return despeckle(region, act, place.scale);
    case 'grain':
      return grain(region, act, place);
    case 'focus':
      return focus(region, act, place);
  }
}
