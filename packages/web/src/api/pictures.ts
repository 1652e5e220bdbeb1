import type { KnownLine } from '@tersum/core';
import type {
  DonorWishes,
  Edit,
  PictureEvent,
  PictureRecords,
  Repair,
  View,
} from '@tersum/document';
import {
  AdviceAnswerSchema,
  ConfidenceAnswerSchema,
  GroundAnswerSchema,
  GuideAnswerSchema,
  PortionAnswerSchema,
  VariantAnswerSchema,
  KnownLineSchema,
  LineAnswerSchema,
  RegionAnswerSchema,
  TwinAnswerSchema,
  DonorAnswerSchema,
  PictureEventSchema,
  PictureRecordsSchema,
  ViewSchema,
} from '@tersum/document';
import { request } from './client.js';

const path = (id: string, rest = ''): string => `/api/pictures/${id}${rest}`;

export const getRecords = (id: string): Promise<PictureRecords> =>
  request(PictureRecordsSchema, path(id));
export const getView = (id: string): Promise<View> => request(ViewSchema, path(id, '/view'));

export const postChange = (
  id: string,
  version: number,
  label: string,
  edits: Edit[],
): Promise<PictureRecords> =>
  request(PictureRecordsSchema, path(id, '/changes'), { body: { version, label, edits } });

export const postMove = (
  id: string,
  move: 'undo' | 'redo',
  version: number,
): Promise<PictureRecords> =>
  request(PictureRecordsSchema, path(id, `/${move}`), { body: { version } });

export const postPreview = (
  id: string,
  version: number,
  edits: Edit[],
  signal: AbortSignal,
): Promise<View> => request(ViewSchema, path(id, '/preview'), { body: { version, edits }, signal });

export const findDonors = async (id: string, repair: Repair, wishes?: DonorWishes) =>
  (await request(DonorAnswerSchema, path(id, '/donors'), { body: { repair, wishes } })).offers;

export const findTwins = async (id: string, repair: Repair) =>
  (await request(TwinAnswerSchema, path(id, '/twins'), { body: { repair } })).twins;

export const findVariants = async (id: string, repair: Repair, from: number, signal: AbortSignal) =>
  (
    await request(VariantAnswerSchema, path(id, '/variants'), {
      body: { repair, from },
      signal,
    })
  ).variants;

export const findGrounds = async (id: string, repair: Repair) =>
  (await request(GroundAnswerSchema, path(id, '/grounds'), { body: { repair } })).grounds;

export const findGuides = async (id: string, repair: Repair, sure = false) =>
  (await request(GuideAnswerSchema, path(id, '/guides'), { body: { repair, sure } })).guides;

export const findPortions = async (id: string, repair: Repair) =>
  (await request(PortionAnswerSchema, path(id, '/portions'), { body: { repair } })).portions;

export const getConfidence = (id: string, search: string) =>
  request(ConfidenceAnswerSchema, path(id, `/searches/${search}/confidence`));

export const getAdvice = (id: string, repair: Repair) =>
  request(AdviceAnswerSchema, path(id, '/advice'), { body: { repair } });

export const outlineThing = async (id: string, scribble: readonly (readonly [number, number])[]) =>
  (await request(RegionAnswerSchema, path(id, '/region'), { body: { scribble } })).outline;

export const measureLine = async (
  id: string,
  from: readonly [number, number],
  to: readonly [number, number],
) => (await request(LineAnswerSchema, path(id, '/line'), { body: { from, to } })).line;

/** Follows a line beyond what was drawn of it, for as long as it stands out. */
export const lineToItsEnds = (id: string, line: KnownLine): Promise<KnownLine> =>
  request(KnownLineSchema, path(id, '/line/ends'), { body: line });

/** Where a tile's pixels are; the address changes with the content, so it may be kept for ever. */
export function tileAddress(id: string, name: string, key: string): string {
  return path(id, `/tiles/${name}/${key}`);
}

/** Listens to what happens to a picture. @returns ends it */
export function listen(
  id: string,
  onEvent: (event: PictureEvent) => void,
  onOpen: () => void,
): () => void {
  const source = new EventSource(path(id, '/events'));
  source.onopen = onOpen;
  source.onmessage = (message: MessageEvent<string>) => {
    const event = PictureEventSchema.safeParse(JSON.parse(message.data));
    if (event.success) onEvent(event.data);
  };
  return () => source.close();
}
