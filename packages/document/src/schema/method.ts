import { z } from 'zod';
import { DonorSchema } from './donor.js';
import { FillSchema } from './fill.js';
import { PieceSchema } from './piece.js';
import { StretchSchema } from './sides.js';

const copied = {
  donor: DonorSchema,
  /** A second donor from the other side of a gap: each side takes the nearer one, blended between; null for none. */
  other: DonorSchema.nullable().default(null),
};

/** How a repair gets its pixels. */
export const MethodSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('clone'), ...copied }),
  z.object({ kind: z.literal('graft'), ...copied }),
  z.object({
    kind: z.literal('patch'),
    ...copied,
    /** How the substitute is laid in. */
    as: z.enum(['clone', 'graft']),
    /** Which area was outlined: when it was the good one, sliding moves the site and the donor stays. */
    from: z.enum(['bad', 'good']).default('bad'),
  }),
  z.object({ kind: z.literal('fill'), ...FillSchema.shape }),
  z.object({ kind: z.literal('piece'), ...PieceSchema.shape }),
  /** The site is the stroke along which pixels are pushed. */
  z.object({ kind: z.literal('push') }),
  /** The site is the whole canvas. */
  z.object({ kind: z.literal('stretch'), ...StretchSchema.shape }),
  /** The site shows the original again. */
  z.object({ kind: z.literal('give back') }),
]);
export type Method = z.infer<typeof MethodSchema>;
export type MethodKind = Method['kind'];

/** Methods that copy from one place. */
export type CopyMethod = Extract<Method, { readonly donor: unknown; readonly other: unknown }>;

export function isCopy(method: Method): method is CopyMethod {
  return method.kind === 'clone' || method.kind === 'graft' || method.kind === 'patch';
}

/** Ids of the other pictures a method copies from. */
export function picturesRead(method: Method): string[] {
  const donors = isCopy(method)
    ? [method.donor, method.other]
    : method.kind === 'piece'
      ? [method.donor]
      : [];
  return donors.flatMap((donor) => donor?.picture ?? []);
}

/** What each method is called. */
export const METHOD_NAMES: Record<Method['kind'], string> = {
  clone: 'Clone',
  graft: 'Graft',
  patch: 'Patch',
  fill: 'Fill',
  piece: 'Piece',
  push: 'Push',
  stretch: 'Stretch',
  'give back': 'Give back',
};
