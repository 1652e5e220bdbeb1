import type { Raster, Rect, Sides } from '@tersum/core';
import type { LevelsQuery, PartQuery } from '@tersum/document';
import {
  BlocksAnswerSchema,
  ChannelsAnswerSchema,
  DetailAnswerSchema,
  FadeAnswerSchema,
  LevelsAnswerSchema,
  PictureRecordsSchema,
  PictureSchema,
  PrintsAnswerSchema,
  OutlinesAnswerSchema,
  TiltAnswerSchema,
  WidenAnswerSchema,
} from '@tersum/document';
import { z } from 'zod';
import { request, RequestProblem } from './client.js';

const path = (id: string, rest: string): string => `/api/pictures/${id}${rest}`;

/** A part of the mended picture at 16 bits; see the server's `part`. */
export async function getPart(
  id: string,
  rect: Rect,
  factor: number,
  signal: AbortSignal,
  state: PartQuery['state'] = 'mended',
): Promise<Raster> {
  const { x, y, width, height } = rect;
  const query = new URLSearchParams(
    Object.entries({ x, y, width, height, factor, state }).map(([k, v]) => [k, String(v)]),
  );
  const answer = await fetch(path(id, `/part?${query}`), { signal });
  if (!answer.ok)
    throw new RequestProblem(answer.status, 'The picture could not be fetched. Reload the page.');
  const [w, h, channels] = (answer.headers.get('X-Part') ?? '').split(' ').map(Number);
  const data = new Uint16Array(await answer.arrayBuffer());
  return { width: w!, height: h!, channels: channels as 1 | 3, data };
}

export const measureTilt = (id: string) =>
  request(TiltAnswerSchema, path(id, '/tilt'), { method: 'POST' });

export const measureBlocks = async (id: string) =>
  (await request(BlocksAnswerSchema, path(id, '/blocks'), { method: 'POST' })).blocks;

export const measureDetail = (id: string) =>
  request(DetailAnswerSchema, path(id, '/detail'), { method: 'POST' });

export const setDensity = (id: string, ppi: number | null) =>
  request(PictureRecordsSchema, path(id, '/ppi'), { method: 'PUT', body: { ppi } });

export const findPrints = async (id: string) =>
  (await request(PrintsAnswerSchema, path(id, '/prints'), { method: 'POST' })).prints;

export const measureChannels = async (id: string) =>
  (await request(ChannelsAnswerSchema, path(id, '/channels'), { method: 'POST' })).choice;

export const measureFade = (id: string) =>
  request(FadeAnswerSchema, path(id, '/fade'), { method: 'POST' });

export const measureLevels = (id: string, query: LevelsQuery) =>
  request(LevelsAnswerSchema, path(id, '/levels'), { body: query });

export const tryWiden = (id: string, sides: Sides, signal: AbortSignal) =>
  request(WidenAnswerSchema, path(id, '/widen'), { body: { sides }, signal });

export const findSubject = async (id: string, signal: AbortSignal) =>
  (await request(OutlinesAnswerSchema, path(id, '/subject'), { method: 'POST', signal })).outlines;

/** What lies beyond the backdrop; no outline where it reaches the edges. */
export const findBackdropEnd = async (id: string) =>
  (await request(OutlinesAnswerSchema, path(id, '/backdrop'), { method: 'POST' })).outlines;

export const splitPrints = async (id: string, quads: unknown) =>
  (
    await request(z.object({ pictures: z.array(PictureSchema) }), path(id, '/split'), {
      body: { quads },
    })
  ).pictures;
