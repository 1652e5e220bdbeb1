import { SCALE_LIMITS } from '@tersum/core';
import { z } from 'zod';
import { PictureSchema } from '../schema/job.js';
import { EditSchema } from '../schema/change.js';
import { DonorSchema } from '../schema/donor.js';
import { FillSchema, GuideSchema } from '../schema/fill.js';
import { FrameSchema } from '../schema/frame.js';
import { PreparationSchema } from '../schema/preparation.js';
import { LayerSchema, RepairSchema } from '../schema/repair.js';
import { ToneSchema } from '../schema/tone.js';

const point = z.tuple([z.number().finite(), z.number().finite()]);
const RectSchema = z.object({
  x: z.int(),
  y: z.int(),
  width: z.int().min(1),
  height: z.int().min(1),
});

/** Every error answer: one sentence for the person that says what to do. */
export const ProblemSchema = z.object({ message: z.string() });
export type Problem = z.infer<typeof ProblemSchema>;

/** A picture with all its records. */
export const PictureRecordsSchema = z.object({
  picture: PictureSchema,
  jobTitle: z.string(),
  layers: z.array(LayerSchema).readonly(),
  repairs: z.array(RepairSchema).readonly(),
  tones: z.array(ToneSchema).readonly(),
  frames: z.array(FrameSchema).readonly(),
  preparations: z.array(PreparationSchema).readonly(),
  /** Label of what undo would take back and redo do again; null when there is nothing. */
  undo: z.string().nullable(),
  redo: z.string().nullable(),
  /** When the last change was kept. */
  savedAt: z.iso.datetime().nullable(),
});
export type PictureRecords = z.infer<typeof PictureRecordsSchema>;

/** What the screen should show: which tiles differ from the original, and how the computing stands. */
export const ViewSchema = z.object({
  version: z.int(),
  /** Key of the tiles that no repair touches: the original's, or those of what was prepared of it. */
  base: z.string(),
  /** Where the picture lies, in the original's pixels: its frame, or a canvas made of it. Tiles are counted from its corner. */
  canvas: RectSchema,
  /** Tile name -> key of its content. Tiles not named here are the base's. */
  tiles: z.record(z.string(), z.string()),
  /** Repairs whose donors changed since they were searched. */
  donorChanged: z.array(z.uuid()),
  /** Repairs that could not be computed, and why. */
  failed: z.record(z.string(), z.string()),
  /** Where fills are least sure of themselves, by repair: a dab's middle and width, px, and the mean confidence 0..1. */
  unsure: z.record(
    z.string(),
    z.array(z.object({ x: z.number(), y: z.number(), width: z.number(), confidence: z.number() })),
  ),
});
export type View = z.infer<typeof ViewSchema>;

/** Pixels that changed in a tile, so that somebody who holds the tile as it was need not ask for it again. */
export const FreshPartSchema = z.object({
  /** Tile name, and the keys of its content before and now; 'original' where no repair touched it. */
  place: z.string(),
  before: z.string(),
  now: z.string(),
  /** In the tile's own pixels. */
  x: z.int().min(0),
  y: z.int().min(0),
  width: z.int().min(1),
  height: z.int().min(1),
  /** Base64 of 8-bit samples, 1 or 3 a pixel, row by row. */
  samples: z.string(),
});
export type FreshPart = z.infer<typeof FreshPartSchema>;

/** Events a picture's stream sends. */
export const PictureEventSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('changed'), version: z.int() }),
  z.object({ type: z.literal('progress'), version: z.int(), share: z.number() }),
  z.object({
    type: z.literal('view'),
    view: ViewSchema,
    /** Of the tiles asked for lately; anything else is fetched by its key. */
    fresh: z.array(FreshPartSchema),
  }),
  /** What a fill that is still being searched comes to so far. */
  z.object({
    type: z.literal('rough'),
    repairId: z.uuid(),
    x: z.int(),
    y: z.int(),
    /** How many px of the picture one of these stands for, each way. */
    factor: z.int().min(1),
    width: z.int().min(1),
    height: z.int().min(1),
    /** Base64 of 8-bit samples, four a pixel, row by row. */
    samples: z.string(),
  }),
  z.object({ type: z.literal('trouble'), message: z.string() }),
]);
export type PictureEvent = z.infer<typeof PictureEventSchema>;

export const VersionSchema = z.object({ version: z.int().min(0) });

/** Records as they would be, to be shown but not kept. */
export const PreviewSchema = z.object({
  version: z.int().min(0),
  edits: z.array(EditSchema).min(1).max(500),
});
export type Preview = z.infer<typeof PreviewSchema>;

/** What a search for donors may try besides shifts: turns to so many degrees, mirrors, a range of scales. */
export const DonorWishesSchema = z.object({
  turn: z.number().min(0).max(180).default(0),
  mirror: z.boolean().default(false),
  scale: z
    .tuple([
      z.number().min(SCALE_LIMITS.least).max(SCALE_LIMITS.most),
      z.number().min(SCALE_LIMITS.least).max(SCALE_LIMITS.most),
    ])
    .default([1, 1]),
  /** Only places that are not seen together with the site, so that nothing shows twice. */
  away: z.boolean().optional(),
});

export type DonorWishes = z.infer<typeof DonorWishesSchema>;

export const DonorQuerySchema = z.object({
  repair: RepairSchema,
  wishes: DonorWishesSchema.default({ turn: 0, mirror: false, scale: [1, 1] }),
});
/** A donor and how badly its ring fits, squared 8-bit codes. */
export const OfferSchema = z.object({ donor: DonorSchema, misfit: z.number() });
export type Offer = z.infer<typeof OfferSchema>;
/** Best first. */
export const DonorAnswerSchema = z.object({ offers: z.array(OfferSchema) });

export const TwinSchema = OfferSchema.extend({
  over: z.enum(['x', 'y', 'none']),
  axis: z.tuple([point, point]).nullable(),
});
export type TwinOffer = z.infer<typeof TwinSchema>;
export const TwinAnswerSchema = z.object({ twins: z.array(TwinSchema) });

export const SiteQuerySchema = z.object({
  repair: RepairSchema,
});
export const AdviceSchema = z.object({
  method: z.enum(['clone', 'graft', 'fill']),
  width: z.number().nullable(),
  softness: z.number(),
  flow: z.number(),
  portions: z.int(),
  keepStep: z.boolean(),
  reason: z.string(),
});
/** What was measured of a site, and what is advised; nulls where the site lies outside the picture. */
export const AdviceAnswerSchema = z.object({
  advice: AdviceSchema.nullable(),
  facts: z
    .object({
      defectWidth: z.number().nullable(),
      width: z.number(),
      area: z.number(),
      edge: z.object({ distance: z.number(), contrast: z.number() }).nullable(),
      texture: z.number(),
    })
    .nullable(),
});
export type AdviceAnswer = z.infer<typeof AdviceAnswerSchema>;

/** A region that may supply pixels: shares of the surroundings and of the site's ring, 0..1; mean colour, 8-bit. */
export const GroundSchema = z.object({
  outline: z.array(point),
  area: z.number(),
  ring: z.number(),
  colour: z.tuple([z.number(), z.number(), z.number()]),
});
export type GroundOffer = z.infer<typeof GroundSchema>;
export const GroundAnswerSchema = z.object({ grounds: z.array(GroundSchema) });
export const GuideQuerySchema = SiteQuerySchema.extend({
  /** Only edges that need nobody to confirm them. */
  sure: z.boolean().default(false),
});
export const GuideAnswerSchema = z.object({ guides: z.array(GuideSchema) });
/** Outlines in the order in which they are best filled. */
export const PortionAnswerSchema = z.object({ portions: z.array(z.array(point)) });

/** Asks for fillings of one site, each under the name of a search that is kept. */
export const VariantQuerySchema = z.object({
  repair: RepairSchema,
  /** How many were made before: the next ones differ from them. */
  from: z.int().min(0).max(300).default(0),
});
/** A filling that was searched and kept; what gives it away, and how much. */
export const VariantSchema = z.object({
  search: z.uuid(),
  seed: z.int(),
  lean: FillSchema.shape.lean,
  figures: z.object({ seam: z.number(), texture: z.number(), repeats: z.number() }),
  score: z.number(),
});
export type VariantOffer = z.infer<typeof VariantSchema>;
/** Best first. */
export const VariantAnswerSchema = z.object({ variants: z.array(VariantSchema) });

/** How sure a fill is, pixel by pixel. */
export const ConfidenceAnswerSchema = z.object({
  rect: z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() }),
  /** Base64, a byte a pixel: 255 sure, 0 not at all or no part of the site. */
  samples: z.string(),
});

export const RegionQuerySchema = z.object({ scribble: z.array(point).min(1).max(5000) });
export const RegionAnswerSchema = z.object({ outline: z.array(point).nullable() });

export const LineQuerySchema = z.object({ from: point, to: point });
export const LineAnswerSchema = z.object({
  line: z
    .object({
      points: z.array(point),
      bends: z.array(z.number()),
      widths: z.array(z.number()),
      width: z.number(),
      contrast: z.number(),
    })
    .nullable(),
});

/** A line as far as it was drawn, with its widths at every corner; and the same followed to its ends. */
export const KnownLineSchema = z.object({
  points: z.array(point).min(2).max(500),
  bends: z.array(z.number().finite()).max(500),
  widths: z.array(z.number().min(0.5).max(2000)).min(2).max(500),
});

/** Files of one picture without layers. */
export const FLAT_FORMATS = ['png', 'tiff', 'jpeg', 'webp'] as const;
export type FlatFormat = (typeof FLAT_FORMATS)[number];

/** Everything that is written: ora is OpenRaster, with the repair layers over the original; zip is the job itself. */
export const EXPORT_FORMATS = [...FLAT_FORMATS, 'ora', 'zip'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

export const ExportSchema = z.object({
  format: z.enum(EXPORT_FORMATS),
  /** 1..100, JPEG and WebP only. */
  quality: z.int().min(1).max(100).default(92),
  /** Whether tone steps and frame are put in, or the repairs alone. */
  finished: z.boolean().default(true),
  /** Longest side the file is reduced to, px; null for its own. */
  longest: z.int().min(16).max(100_000).nullable().default(null),
  /** Pixels an inch that are written into the file; null for the picture's own. */
  ppi: z.number().min(1).max(9600).nullable().default(null),
  /** Whether colours stay in the picture's profile, or are converted to sRGB. */
  profile: z.enum(['kept', 'srgb']).default('kept'),
  /** Rule for the file name; see {@link fileNameOf}. */
  rule: z.string().trim().min(1, 'Write a rule for the file name.').max(200),
});
export type ExportRequest = z.infer<typeof ExportSchema>;

/** An export being made or ready. */
export const ExportStatusSchema = z.object({
  id: z.uuid(),
  fileName: z.string(),
  share: z.number(),
  state: z.enum(['working', 'ready', 'failed']),
  message: z.string().nullable(),
  /** Warning about what the format cannot hold; null when nothing is lost. */
  warning: z.string().nullable(),
});
export type ExportStatus = z.infer<typeof ExportStatusSchema>;
