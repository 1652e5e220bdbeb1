import type { FindingKind, Point, Rect } from '@tersum/core';
import type {
  Donor,
  GroundOffer,
  MethodKind,
  Offer,
  PictureRecords,
  Repair,
  RepairTell,
  Site,
  VariantOffer,
  View,
} from '@tersum/document';
import type { Surround } from '../../look/theme.js';
import type { Size, Viewport } from '../table/viewport.js';

/** What drawing on the table makes. 'pick' selects and moves what is there. */
export const SHAPES = ['pick', 'dab', 'stroke', 'chain', 'outline', 'rectangle', 'thing'] as const;
export type Shape = (typeof SHAPES)[number];

/** Where the picture on the table lies, in the original's pixels. */
export function shownCanvas(
  { view, preview }: Partial<Pick<BenchState, 'view' | 'preview'>>,
  picture: Size,
): Rect {
  const shown = (preview ?? view)?.canvas;
  if (shown) return shown;
  const known = frames.get(picture) ?? { x: 0, y: 0, width: picture.width, height: picture.height };
  frames.set(picture, known);
  return known;
}

/** One frame a picture, so that what is read from the state twice is the same. */
const frames = new WeakMap<Size, Rect>();

/** What a press on the table does now: while a repair is open, the table picks and moves. */
export function shapeNow(state: Pick<BenchState, 'selected' | 'tool'>): Shape {
  return state.selected ? 'pick' : state.tool.shape;
}

/** Where the next clone or graft takes its pixels from. */
export type DonorChoice =
  /** Looked for by the program. */
  | { readonly kind: 'search' }
  /** A place that was clicked; the next stroke fixes the shift. */
  | { readonly kind: 'place'; readonly at: Point; readonly laid: Omit<Donor, 'dx' | 'dy'> }
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
  /** How patches are laid in, and which area is outlined first. */
  readonly patchAs: 'clone' | 'graft';
  readonly patchFrom: 'bad' | 'good';
}

/** What dragging on a selected piece does. */
export type PieceHand = 'move' | 'corners' | 'pins' | 'show' | 'hide';

/** Donors offered for a repair; the list is null while they are looked for. */
export interface Offers {
  readonly repair: string;
  readonly list: readonly Offer[] | null;
  readonly at: number;
  /** Whether turned, mirrored and scaled donors were tried as well. */
  readonly wide: boolean;
}

/** Fillings offered for a repair, best first; the list is null while they are computed. */
export interface Variants {
  readonly repair: string;
  readonly list: readonly VariantOffer[] | null;
  readonly at: number;
}

/** What dragging on the table does while a fill is open. */
export type FillHand = 'pick' | 'allow' | 'forbid' | 'guide';

/** The grounds around a fill; the list is null while they are looked for. */
export interface ShownGrounds {
  readonly repair: string;
  readonly list: readonly GroundOffer[] | null;
}

/** A picture laid over the table, at whole px of the picture. */
export interface Overlay {
  readonly repair: string;
  readonly x: number;
  readonly y: number;
  /** How many px of the picture one of its own covers, each way. */
  readonly factor: number;
  readonly image: ImageBitmap;
}

/** A site being drawn. */
export interface Draft {
  readonly site: Site;
  /** Widths of the lines found along finished runs of a chain, px. */
  readonly measured: readonly number[];
  /** Widths of the line at every corner of a chain, px; 0 where none was found. */
  readonly widths: readonly number[];
  /** Measurements still on their way. */
  readonly measuring: number;
}

/** What an outline on the table is to mean to the survey: where alone a kind is looked for or is left alone, or the subject. */
export type Marking = { readonly kind: FindingKind; readonly only: boolean } | 'subject';

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
  /** The tell that is shown on the table. */
  readonly tell: RepairTell | null;
  readonly tool: Tool;
  readonly draft: Draft | null;
  /** The site drawn last, until its pixels have come. */
  readonly pending: Site | null;
  readonly selected: string | null;
  /** Repairs selected besides. */
  readonly also: readonly string[];
  readonly offers: Offers | null;
  readonly variants: Variants | null;
  readonly grounds: ShownGrounds | null;
  readonly fillHand: FillHand;
  /** What a fill that is being searched comes to so far. */
  readonly rough: Overlay | null;
  /** How sure the open fill is, as heat. */
  readonly heat: Overlay | null;
  /** A repair being dragged, shown at once from what is on screen. */
  readonly sliding: Repair | null;
  readonly pieceHand: PieceHand;
  /** Line of symmetry of the twin found last, and the piece it was found for. */
  readonly axis: { readonly repair: string; readonly line: readonly [Point, Point] } | null;
  /** Repairs for which the person has chosen for themselves: no more advice. */
  readonly quiet: ReadonlySet<string>;
  readonly viewport: Viewport | null;
  /** Where the picture is to be shown closely when it is first laid on the table. */
  readonly openAt: Point | null;
  readonly table: Size;
  /** Picture point under the pointer. */
  readonly pointer: Point | null;
  readonly asReceived: boolean;
  /** Divider of the split view, share of the table's width; null when not split. */
  readonly split: number | null;
  readonly showAll: boolean;
  /** The next click names a donor. */
  readonly pickingDonor: boolean;
  /** The kind of findings that is open on the docket, and the finding that is selected. */
  readonly findingKind: FindingKind | null;
  readonly finding: string | null;
  /** The next click adds a finding. */
  readonly addingFinding: boolean;
  /** What the next outline marks for the survey. */
  readonly marking: Marking | null;
  readonly surround: Surround;
}
