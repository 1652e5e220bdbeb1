import type { ToneKind } from '@tersum/core';
import type { ToneAct, ToneMask, ToneStep } from '@tersum/core';
import { LEVELS_LIMITS } from '@tersum/core';
import { z } from 'zod';
import { point as anywhere } from './place.js';

const finite = z.number().finite();
const share = z.number().min(0).max(1);
const both = z.number().min(-1).max(1);
const point = anywhere.readonly();
const triple = z.tuple([both, both, both]).readonly();

const within = ([least, most]: readonly [number, number]) => z.number().min(least).max(most);

export const LevelsSchema = z
  .object({
    black: within(LEVELS_LIMITS.black),
    white: within(LEVELS_LIMITS.white),
    gamma: within(LEVELS_LIMITS.gamma),
  })
  .refine((l) => l.white - l.black >= 0.005, 'White must lie above black.');

const StrokeSchema = z.object({
  points: z.array(point).min(1).max(5000).readonly(),
  width: z.number().min(1).max(5000),
});

export const ToneMaskSchema: z.ZodType<ToneMask> = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('outline'),
    inverted: z.boolean(),
    points: z.array(point).min(3).max(5000).readonly(),
    feather: z.number().min(0).max(2000),
  }),
  z.object({ kind: z.literal('gradient'), inverted: z.boolean(), from: point, to: point }),
  z.object({
    kind: z.literal('painted'),
    inverted: z.boolean(),
    strokes: z.array(StrokeSchema).max(500).readonly(),
    feather: z.number().min(0).max(2000),
  }),
]);

export const ToneActSchema: z.ZodType<ToneAct> = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('levels'),
    all: LevelsSchema,
    channels: z.tuple([LevelsSchema, LevelsSchema, LevelsSchema]).readonly(),
  }),
  z.object({ kind: z.literal('flatten'), falloff: z.number().min(-1).max(0.9) }),
  z.object({
    kind: z.literal('curve'),
    channel: z.enum(['all', 'red', 'green', 'blue']),
    points: z
      .array(z.tuple([share, share]).readonly())
      .min(2)
      .max(16)
      .readonly(),
  }),
  z.object({
    kind: z.literal('light'),
    exposure: z.number().min(-4).max(4),
    contrast: both,
    warmth: both,
    tint: both,
  }),
  z.object({ kind: z.literal('balance'), shadows: triple, middle: triple, highlights: triple }),
  z.object({ kind: z.literal('saturation'), amount: both }),
  z.object({ kind: z.literal('grey'), weights: z.tuple([finite, finite, finite]).readonly() }),
  z.object({
    kind: z.literal('toning'),
    hue: z.number().min(0).max(360),
    chroma: z.number().min(0).max(60),
  }),
  z
    .object({
      kind: z.literal('look'),
      name: z.string().max(120),
      size: z.int().min(2).max(33),
      table: z.string().regex(/^[0-9a-z]*$/),
    })
    .refine(({ size, table }) => table.length === 12 * size ** 3, 'The table is cut short.'),
  z.object({
    kind: z.literal('strokes'),
    strokes: z.array(StrokeSchema).max(500).readonly(),
    stops: z.number().min(-3).max(3),
    softness: share,
    between: z.tuple([share, share]).readonly(),
  }),
  z.object({
    kind: z.literal('sharpen'),
    radius: z.number().min(0.2).max(100),
    amount: z.number().min(0).max(5),
    limit: share,
  }),
  z.object({
    kind: z.literal('relief'),
    radius: z.number().min(0.5).max(200),
    amount: z.number().min(0).max(3),
  }),
  z.object({
    kind: z.literal('denoise'),
    radius: z.number().min(1).max(20),
    noise: z.number().min(0).max(0.3),
  }),
  z.object({ kind: z.literal('despeckle'), radius: z.number().min(1).max(4), threshold: share }),
  z.object({
    kind: z.literal('grain'),
    deviation: z.number().min(0).max(0.2),
    size: z.number().min(0.5).max(12),
    seed: z.int().min(0),
  }),
  z.object({
    kind: z.literal('focus'),
    shape: z.enum(['band', 'round']),
    at: point,
    turn: z.number().min(-180).max(180),
    sharp: z.number().min(0),
    fade: z.number().min(1),
    radius: z.number().min(0).max(200),
  }),
]);

/** A step of the tone stack: nothing is baked, it is computed from this. Lower positions come first. */
export interface Tone extends ToneStep {
  readonly id: string;
  readonly position: number;
}

export const ToneSchema: z.ZodType<Tone> = z.object({
  id: z.uuid(),
  position: finite,
  enabled: z.boolean(),
  /** 0..1 */
  strength: share,
  mask: ToneMaskSchema.nullable(),
  act: ToneActSchema,
});

/** What each kind of tone step is called. */
export const TONE_NAMES: Record<ToneKind, string> = {
  flatten: 'Even light',
  levels: 'Levels',
  light: 'Exposure and balance',
  curve: 'Curve',
  balance: 'Colour by tone',
  strokes: 'Lighten and darken',
  saturation: 'Saturation',
  grey: 'Grey',
  toning: 'Toning',
  look: 'Colour look',
  sharpen: 'Sharpen',
  relief: 'Relief',
  denoise: 'Calm noise',
  despeckle: 'Single pixels',
  grain: 'Grain',
  focus: 'Focus fall-off',
};
