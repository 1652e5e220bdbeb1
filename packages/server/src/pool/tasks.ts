import type {
  BlockFacts,
  Candidate,
  Halves,
  SurveyPart,
  SurveyPartDone,
  DetailFacts,
  DonorMap,
  RoughFill,
  FoundPrint,
  GreyChoice,
  LineRun,
  Point,
  Quad,
  Raster,
  Rect,
  Sides,
  KnownLine,
  Preparation,
  PullLeft,
  SiteTell,
  Tilt,
  ToneAct,
} from '@tersum/core';
import type {
  AdviceAnswer,
  DonorWishes,
  FillPlace,
  FillVariant,
  Finishing,
  FlatFormat,
  FindingRecord,
  GroundOffer,
  Guide,
  JoinPlan,
  LevelsAnswer,
  Making,
  Offer,
  Patch,
  PatchLayer,
  Repair,
  ReplayInput,
  TwinOffer,
  WidenAnswer,
} from '@tersum/document';
import type { LaidLayer } from '@tersum/codec';
import type { MessagePort } from 'node:worker_threads';
import type { Decoded } from '@tersum/codec';

/** A picture in shared memory: the original and its display levels. */
export interface OpenPicture extends Decoded {
  readonly pyramid: readonly Raster[];
}

/** What a worker is told when it starts. */
export interface WorkerSetup {
  /** What of the engine to run a few times before the first task comes. */
  readonly warm: 'strokes' | 'searches' | null;
}

/** What a long task says on its way: the share done, or what a filling comes to so far. */
export type Said = number | RoughFill;

/** How a running task is watched and ended from another thread. */
export interface Wire {
  /** Becomes 1 when the task is cancelled; shared memory. */
  readonly cancelled: Int32Array;
  readonly port: MessagePort;
}

/** A picture of the job, as repaired, from which another one is made. */
export interface MakeSource {
  readonly name: string;
  readonly ppi: number | null;
  readonly original: Raster;
  readonly patches: readonly Patch[];
  readonly path: string;
}

/** New pictures to be made; the files are named by the stem. */
export interface MakeTask {
  readonly kind: 'make';
  readonly wire: Wire;
  readonly stem: string;
  readonly making: Making;
  readonly sources: readonly MakeSource[];
  readonly photo: string | null;
}

/** A file that was made, and the name its picture gets. */
export interface Made {
  readonly path: string;
  readonly name: string;
  /** Outlines of what no frame showed, and lines that go on there. */
  readonly bare: Bare | null;
}

export interface Bare {
  readonly outlines: readonly (readonly Point[])[];
  readonly guides: readonly Guide[];
}

/** Everything a worker does: plain data in, plain data out, no state kept. */
export type WorkerTask =
  | { readonly kind: 'open'; readonly path: string }
  | {
      readonly kind: 'join plan';
      readonly wire: Wire;
      readonly sources: readonly Pick<MakeSource, 'original' | 'patches'>[];
      readonly projection: 'auto' | 'plane' | 'cylinder';
    }
  | {
      readonly kind: 'subject' | 'backdrop';
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly marked: readonly Point[] | null;
    }
  | { readonly kind: 'canvas'; readonly original: Raster; readonly on: Rect }
  | ({ readonly kind: 'replay' } & ReplayInput)
  | ({ readonly kind: 'search'; readonly wire: Wire } & FillPlace)
  | ({ readonly kind: 'variant'; readonly wire: Wire } & FillPlace)
  | ({ readonly kind: 'grounds' } & FillPlace)
  | ({ readonly kind: 'guides'; readonly sure: boolean } & FillPlace)
  | ({ readonly kind: 'portions' } & FillPlace)
  | {
      readonly kind: 'donors';
      readonly repair: Repair;
      readonly original: Raster;
      readonly below: readonly Patch[];
      readonly others: readonly Repair[];
      readonly wishes: DonorWishes;
    }
  | {
      readonly kind: 'twins';
      readonly repair: Repair;
      readonly original: Raster;
      readonly below: readonly Patch[];
      readonly others: readonly Repair[];
    }
  | {
      readonly kind: 'advice';
      readonly repair: Repair;
      readonly original: Raster;
      readonly below: readonly Patch[];
    }
  | {
      readonly kind: 'region';
      readonly original: Raster;
      readonly scribble: readonly Point[];
    }
  | MakeTask
  | {
      readonly kind: 'widen';
      readonly wire: Wire;
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly subject: readonly Point[] | null;
      readonly sides: Sides;
    }
  | {
      readonly kind: 'proof';
      readonly wire: Wire;
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly due: readonly number[];
    }
  | {
      readonly kind: 'prepare';
      readonly wire: Wire;
      /** File of the original, whose profile goes along. */
      readonly source: string;
      readonly original: Raster;
      readonly how: Preparation;
      readonly to: string;
    }
  | { readonly kind: 'blocks'; readonly original: Raster }
  | {
      readonly kind: 'layers';
      readonly path: string;
      /** Files to write: what lies lowest, and what the layers show. */
      readonly base: string;
      readonly sheet: string;
    }
  | { readonly kind: 'pulls'; readonly original: Raster; readonly patches: readonly Patch[] }
  | { readonly kind: 'added'; readonly original: Raster; readonly at: Point }
  | { readonly kind: 'survey part'; readonly halves: Halves; readonly part: SurveyPart }
  | {
      readonly kind: 'findings';
      readonly original: Raster;
      readonly candidates: readonly Candidate[];
    }
  | { readonly kind: 'ends'; readonly original: Raster; readonly line: KnownLine }
  | { readonly kind: 'line'; readonly original: Raster; readonly from: Point; readonly to: Point }
  | {
      readonly kind: 'export';
      readonly wire: Wire;
      readonly source: string;
      readonly original: Raster;
      readonly patches: readonly Patch[];
      /** The repair layers, the lowest first, for a layered file. */
      readonly layers: readonly PatchLayer[];
      /** Name of the layer below all. */
      readonly below: string;
      readonly finishing: Finishing;
      /** Longest side, px; null as it is. */
      readonly longest: number | null;
      readonly format: FlatFormat | 'ora';
      readonly quality: number;
      readonly ppi: number | null;
      readonly profile: 'kept' | 'srgb';
      /** An XMP packet for a flat file. */
      readonly xmp: string | null;
      readonly to: string;
    }
  | {
      readonly kind: 'part';
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly rect: Rect;
      readonly factor: number;
    }
  | { readonly kind: 'tilt'; readonly original: Raster }
  | { readonly kind: 'detail'; readonly original: Raster }
  | {
      readonly kind: 'levels';
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly finishing: Finishing;
      readonly share: number;
    }
  | { readonly kind: 'prints'; readonly original: Raster }
  | { readonly kind: 'channels'; readonly original: Raster }
  | {
      readonly kind: 'fade';
      readonly original: Raster;
      readonly patches: readonly Patch[];
      readonly frames: Finishing['frames'];
    }
  | {
      readonly kind: 'cut';
      readonly source: string;
      readonly original: Raster;
      readonly quad: Quad;
      readonly ppi: number | null;
      readonly to: string;
    };

export type TaskOf<K extends WorkerTask['kind']> = Extract<WorkerTask, { kind: K }>;

/** What each kind of task answers. A problem for the person travels as data, not as an error. */
export interface Answers {
  open: OpenPicture;
  canvas: Pick<OpenPicture, 'raster' | 'pyramid'>;
  replay: Patch;
  search: DonorMap;
  variant: FillVariant;
  make: Made[];
  proof: SiteTell[][];
  widen: WidenAnswer;
  subject: [number, number][][];
  backdrop: [number, number][][];
  'join plan': JoinPlan;
  grounds: GroundOffer[];
  guides: Guide[];
  portions: [number, number][][];
  donors: Offer[];
  twins: TwinOffer[];
  advice: AdviceAnswer;
  region: [number, number][] | null;
  line: LineRun | null;
  pulls: PullLeft[];
  ends: KnownLine;
  added: FindingRecord | null;
  'survey part': SurveyPartDone;
  findings: FindingRecord[];
  prepare: { readonly bytes: number };
  blocks: BlockFacts | null;
  layers: { readonly layers: readonly LaidLayer[] };
  export: { readonly bytes: number };
  part: Raster;
  tilt: Tilt;
  detail: DetailFacts;
  levels: LevelsAnswer;
  prints: FoundPrint[];
  fade: ToneAct[];
  channels: GreyChoice | null;
  cut: { readonly bytes: number };
}

export type Answer<K extends keyof Answers> =
  | { readonly ok: Answers[K] }
  | { readonly problem: string; readonly status: number }
  | { readonly cancelled: true }
  | { readonly unmendable: string };
