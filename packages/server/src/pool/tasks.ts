import type { DonorMap, DonorOffer, LineRun, Point, Raster } from '@tersum/core';
import type { ExportFormat, Patch, Repair } from '@tersum/document';
import type { MessagePort } from 'node:worker_threads';
import type { Decoded } from '@tersum/codec';

/** A picture in shared memory: the original and its display levels. */
export interface OpenPicture extends Decoded {
  readonly pyramid: readonly Raster[];
}

/** How a running task is watched and ended from another thread. */
export interface Wire {
  /** Becomes 1 when the task is cancelled; shared memory. */
  readonly cancelled: Int32Array;
  readonly port: MessagePort;
}

/** Everything a worker does: plain data in, plain data out, no state kept. */
export type WorkerTask =
  | { readonly kind: 'open'; readonly path: string }
  | {
      readonly kind: 'replay';
      readonly repair: Repair;
      readonly map: DonorMap | null;
      readonly original: Raster;
      readonly below: readonly Patch[];
    }
  | {
      readonly kind: 'search';
      readonly repair: Repair;
      readonly original: Raster;
      readonly below: readonly Patch[];
      readonly others: readonly Repair[];
      readonly wire: Wire;
    }
  | {
      readonly kind: 'donor';
      readonly repair: Repair;
      readonly original: Raster;
      readonly below: readonly Patch[];
      readonly others: readonly Repair[];
    }
  | { readonly kind: 'line'; readonly original: Raster; readonly from: Point; readonly to: Point }
  | {
      readonly kind: 'export';
      readonly source: string;
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly format: ExportFormat;
      readonly quality: number;
      readonly ppi: number | null;
      readonly to: string;
    };

/** What each kind of task answers. A problem for the person travels as data, not as an error. */
export interface Answers {
  open: OpenPicture;
  replay: Patch;
  search: DonorMap;
  donor: DonorOffer | null;
  line: LineRun | null;
  export: { readonly bytes: number };
}

export type Answer<K extends keyof Answers> =
  | { readonly ok: Answers[K] }
  | { readonly problem: string; readonly status: number }
  | { readonly cancelled: true }
  | { readonly unmendable: string };
