import type { Rect } from '@tersum/core';
import { EMPTY_RECT, maskBox, millimetres, shift, unite } from '@tersum/core';
import { z } from 'zod';
import { activeRepairs, layersInOrder } from '../render/order.js';
import type { Patch } from '../render/patch.js';
import type { Method } from '../schema/method.js';
import { METHOD_NAMES } from '../schema/method.js';
import { canvasOfRecords } from '../render/canvas.js';
import type { Records } from '../schema/records.js';
import { SurveySettingsSchema } from '../schema/finding.js';
import type { Job, Picture } from '../schema/job.js';
import { TONE_NAMES } from '../schema/tone.js';
import { tonesInOrder } from '../render/finish.js';
import type { Preparation } from '../schema/preparation.js';

/** What a repair did to the picture. */
export const MANNERS = ['cleaned', 'rebuilt', 'invented', 'given back'] as const;

const box = z.object({ x: z.int(), y: z.int(), width: z.int(), height: z.int() });

/** A file that was made to be delivered. */
export const DeliverySchema = z.object({
  fileName: z.string(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  bytes: z.int(),
  at: z.iso.datetime(),
});
export type Delivery = z.infer<typeof DeliverySchema>;

/** A treatment report; see the JSON Schema made from it. */
export const ReportSchema = z.object({
  format: z.literal('tersum-treatment-report'),
  version: z.literal(1),
  made: z.iso.datetime(),
  job: z.object({ title: z.string(), client: z.string() }),
  picture: z.object({
    name: z.string(),
    /** SHA-256 of the file as received. */
    original: z.string(),
    width: z.int(),
    height: z.int(),
    bits: z.int(),
    ppi: z.number().nullable(),
  }),
  /** From the lowest layer to the highest. */
  layers: z.array(
    z.object({
      name: z.string(),
      repairs: z.array(
        z.object({
          number: z.int(),
          method: z.string(),
          reason: z.string(),
          /** Longer side of the area it changed; mm when the picture has a scale, else null. */
          sizeMm: z.number().nullable(),
          sizePx: z.int(),
          parts: z.int(),
          strength: z.number(),
          manner: z.enum(MANNERS),
          box,
        }),
      ),
    }),
  ),
  /** Shares of the picture's area, 0..1. */
  shares: z.record(z.enum(MANNERS), z.number()),
  untouched: z.number(),
  /** What was done before repairs, a few words each. */
  prepared: z.array(z.string()),
  tones: z.array(z.object({ name: z.string(), strength: z.number() })),
  framed: z.boolean(),
  /** Whether only damage may go, or distractions as well. */
  policy: SurveySettingsSchema.shape.policy.removeDefault(),
  /** Tells of the repairs when they were proved last: those that are open, and those looked at and let stand; null unproved. */
  proof: z.object({ open: z.int(), standing: z.int() }).nullable(),
  /** Files that were made of the picture, the newest last. */
  delivered: z.array(DeliverySchema),
  statement: z.string(),
});
export type Report = z.infer<typeof ReportSchema>;
type Manner = (typeof MANNERS)[number];

/** px up to which a filled site counts as cleaned: what it shows is told by its surroundings. */
const CLEANED = 16;

/**
 * The record of a picture's treatment, from its records and what they changed.
 * @param owners the repair each patch belongs to
 * @param more what was allowed, what the proof told last, and the files made so far
 */
export function reportOf(
  job: Pick<Job, 'title' | 'client'>,
  picture: Picture,
  records: Records,
  patches: readonly Patch[],
  owners: readonly string[],
  made: Date,
  { policy, proof, delivered }: Pick<Report, 'policy' | 'proof' | 'delivered'> = {
    policy: 'documentary',
    proof: null,
    delivered: [],
  },
): Report {
  const active = activeRepairs(records);
  const manners: Record<Manner, number> = { cleaned: 0, rebuilt: 0, invented: 0, 'given back': 0 };
  const layers = layersInOrder(records).map((layer) => ({
    name: layer.name,
    repairs: active
      .map((repair, k) => ({ repair, number: k + 1 }))
      .filter(({ repair }) => repair.layerId === layer.id)
      .map(({ repair, number }) => {
        const own = patches.filter((_, k) => owners[k] === repair.id);
        const area = own.reduce((sum, p) => sum + p.mask.reduce((n, m) => n + m, 0), 0);
        const around = boxAround(own);
        const manner = mannerOf(repair.method, repair.width);
        manners[manner] += area;
        const sizePx = Math.max(around.width, around.height);
        return {
          number,
          method: METHOD_NAMES[repair.method.kind],
          reason: repair.reason,
          sizeMm: picture.ppi ? millimetres(sizePx, picture.ppi) : null,
          sizePx,
          parts: repair.site.kind === 'parts' ? repair.site.parts.length : 1,
          strength: repair.strength,
          manner,
          box: around,
        };
      }),
  }));
  const canvas = canvasOfRecords(picture, records);
  const all = canvas.width * canvas.height;
  const shares = Object.fromEntries(MANNERS.map((m) => [m, manners[m] / all])) as Report['shares'];
  const tones = tonesInOrder(records)
    .filter((t) => t.enabled)
    .map((t) => ({ name: TONE_NAMES[t.act.kind], strength: t.strength }));
  const prepared = records.preparations.flatMap(preparationWords);
  return {
    format: 'tersum-treatment-report',
    version: 1,
    made: made.toISOString(),
    job: { title: job.title, client: job.client },
    picture: {
      name: picture.name,
      original: picture.original,
      width: picture.width,
      height: picture.height,
      bits: picture.bits,
      ppi: picture.ppi,
    },
    layers: layers.filter((l) => l.repairs.length),
    shares,
    untouched: 1 - MANNERS.reduce((sum, m) => sum + shares[m]!, 0),
    prepared,
    tones,
    framed: records.frames.length > 0,
    policy,
    proof,
    delivered,
    statement: statementOf(manners, prepared.length > 0, tones.length > 0),
  };
}

function mannerOf(method: Method, width: number): Manner {
  const { kind } = method;
  if (kind === 'stretch' || (kind === 'fill' && method.sides)) return 'invented';
  if (kind === 'give back') return 'given back';
  if (kind === 'piece') return 'rebuilt';
  if (kind === 'fill') return width <= CLEANED ? 'cleaned' : 'invented';
  return width <= CLEANED ? 'cleaned' : 'rebuilt';
}

/** The box of the pixels that patches changed; empty when there are none. */
function boxAround(patches: readonly Patch[]): Rect {
  return patches.reduce<Rect>((all, { rect, mask }) => {
    const own = maskBox(mask, rect.width);
    return own ? unite(all, shift(own, rect.x, rect.y)) : all;
  }, EMPTY_RECT);
}

function preparationWords({ grey, blocks }: Preparation): string[] {
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  return [
    ...(blocks
      ? [
          `blocks of a compression of quality ${blocks.quality} reduced by ${percent(blocks.strength)}`,
        ]
      : []),
    ...(grey ? [`grey made of ${grey.map(percent).join(', ')} of red, green and blue`] : []),
  ];
}

function statementOf(
  manners: Readonly<Record<Manner, number>>,
  prepared: boolean,
  toned: boolean,
): string {
  const parts: string[] = [];
  if (manners.cleaned) parts.push('damage was cleaned from what stands beside it');
  if (manners.rebuilt) parts.push('lost parts were rebuilt from elsewhere in the picture');
  if (manners.invented) parts.push('areas were filled with invented content');
  if (prepared) parts.push('it was prepared as a whole before repairs');
  if (toned) parts.push('tone was changed over the whole picture');
  if (!parts.length) return 'Nothing was altered in this picture.';
  const list =
    parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : parts[0]!;
  return `This picture was altered: ${list}. The file as received is kept unchanged. It should not serve as evidence or as a record without this report.`;
}
