import type { Point } from '@tersum/core';
import type { Donor, MethodKind, PictureRecords, Site, View } from '@tersum/document';
import type { Surround } from '../../look/theme.js';
import type { Size, Viewport } from '../table/viewport.js';

/** What drawing on the table makes. 'pick' selects and moves what is there. */
export const SHAPES = ['pick', 'dab', 'stroke', 'chain', 'outline', 'rectangle'] as const;
export type Shape = (typeof SHAPES)[number];

/** What a press on the table does now: while a repair is open, the table picks and moves. */
export function shapeNow(state: Pick<BenchState, 'selected' | 'tool'>): Shape {
  return state.selected ? 'pick' : state.tool.shape;
}

/** Where the next clone or graft takes its pixels from. */
export type DonorChoice =
  /** Looked for by the program. */
  | { readonly kind: 'search' }
  /** A place that was clicked; the next stroke fixes the shift. */
  | { readonly kind: 'place'; readonly at: Point }
  /** A fixed shift that strokes keep step with. */
  | { readonly kind: 'shift'; readonly shift: Donor };

/** Settings of the next repair. */
export interface Tool {
  readonly method: MethodKind;
  readonly shape: Shape;
  readonly width: number;
  readonly softness: number;
  readonly flow: number;
  readonly strength: number;
  readonly adapt: number;
  readonly donor: DonorChoice;
  /** Whether strokes keep one shift, or begin at the donor each time. */
  readonly keepStep: boolean;
  readonly layerId: string | null;
}

/** A site being drawn. */
export interface Draft {
  readonly site: Site;
  /** Widths of the lines found along finished runs of a chain, px. */
  readonly measured: readonly number[];
  /** Measurements still on their way. */
  readonly measuring: number;
}

export interface BenchState {
  readonly pictureId: string;
  readonly records: PictureRecords | null;
  /** Why the picture could not be opened. */
  readonly trouble: string | null;
  /** Pixels of the last version that was computed. */
  readonly view: View | null;
  /** Pixels of a change that is being tried out. */
  readonly preview: View | null;
  /** Share of the computing done, or null when nothing is being computed. */
  readonly computing: number | null;
  /** Changes on their way to the server. */
  readonly saving: number;
  readonly notice: string | null;
  readonly tool: Tool;
  readonly draft: Draft | null;
  readonly selected: string | null;
  readonly viewport: Viewport | null;
  readonly table: Size;
  /** Picture point under the pointer. */
  readonly pointer: Point | null;
  readonly asReceived: boolean;
  /** Divider of the split view, share of the table's width; null when not split. */
  readonly split: number | null;
  readonly showAll: boolean;
  /** The next click names a donor. */
  readonly pickingDonor: boolean;
  readonly surround: Surround;
}
