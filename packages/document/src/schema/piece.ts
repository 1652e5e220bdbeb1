import { z } from 'zod';
import { DonorSchema } from './donor.js';
import { point } from './place.js';

const MOST_PINS = 64;
const MOST_STROKES = 2000;

/** A lifted copy and how it is laid down. The site is the lifted outline, moved to where the piece lies at rest. */
export const PieceSchema = z.object({
  /** From the piece at rest to where it was lifted, with turn, mirror and scale. */
  donor: DonorSchema,
  /** Degrees the upright sides lean, -60..60. */
  skew: z.number().min(-60).max(60).default(0),
  /** How far the corners of the box (top left, top right, bottom right, bottom left) are drawn off, px. */
  corners: z.tuple([point, point, point, point]).nullable().default(null),
  /** Points of the piece that were drawn elsewhere, in the picture's coordinates. */
  pins: z
    .array(z.object({ from: point, to: point }))
    .max(MOST_PINS)
    .default([]),
  /** Strokes that show or hide parts of the piece, over the piece at rest. */
  reveal: z
    .array(
      z.object({
        show: z.boolean(),
        points: z.array(point).min(1).max(20_000),
        width: z.number().min(1).max(2000),
        softness: z.number().min(0).max(1),
      }),
    )
    .max(MOST_STROKES)
    .default([]),
  /** Whether everything is hidden until a stroke shows it. */
  hidden: z.boolean().default(false),
  /** Whether its tone is matched to the new place. */
  matchTone: z.boolean().default(false),
});
export type Piece = z.infer<typeof PieceSchema>;
