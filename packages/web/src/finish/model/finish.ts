import type { NeutralPoint, Point, Quad, ToneMask } from '@tersum/core';
import { hueOf, neutralised, NO_LEVELS } from '@tersum/core';
import type { Frame, Tone } from '@tersum/document';
import { tonesInOrder } from '@tersum/document';
import { createStore } from 'zustand/vanilla';
import type { Bench } from '../../bench/model/bench.js';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/finish.js';
import { ACTS } from './acts.js';

/** What the pointer does on the picture. */
export type Hand = 'pan' | 'stroke' | 'mask' | 'level' | 'place' | Picking;

/** A click takes the colour of a place: as the tint, or as what is to be neutral. */
export type Picking = 'tint' | NeutralPoint;

export function isPicking(hand: Hand): hand is Picking {
  return hand === 'tint' || hand === 'white' || hand === 'grey' || hand === 'black';
}

/** What can be asked of the part of the picture on screen. */
export interface ToneSight {
  /** Mean colour round a place of the region after some steps, 0..1. */
  read(x: number, y: number, steps: readonly Tone[]): Promise<number[]>;
}

export interface FinishState {
  readonly part: 'tone' | 'frame';
  /** The step whose card is open. */
  readonly selected: string | null;
  /** A step as it is being tried out. */
  readonly draft: Tone | null;
  /** The frame as it is being tried out. */
  readonly frameDraft: Frame | null;
  /** Whether frame corners move one by one, for a print photographed at a slant. */
  readonly freeCorners: boolean;
  /** Prints that were found in the picture. */
  readonly prints: readonly Quad[];
  readonly hand: Hand;
  /** px, of strokes that are drawn next. */
  readonly width: number;
  readonly zoom: 'fit' | 'whole';
  /** Shows the picture without tone steps. */
  readonly before: boolean;
  readonly clipping: boolean;
  readonly busy: string | null;
}

/** The finish of one picture: what is in hand, and what can be done. Records live on the bench. */
export class Finish {
  readonly store = createStore<FinishState>(() => ({
    part: 'tone',
    selected: null,
    draft: null,
    frameDraft: null,
    freeCorners: false,
    prints: [],
    hand: 'pan',
    width: 120,
    zoom: 'fit',
    before: false,
    clipping: false,
    busy: null,
  }));

  /** The picture on screen, while it is shown. */
  sight: ToneSight | null = null;

  constructor(readonly bench: Bench) {}

  set(patch: Partial<FinishState>): void {
    this.store.setState(patch);
  }

  /** The steps as they stand, the one being tried out in its place. */
  steps(): Tone[] {
    const { records } = this.bench.store.getState();
    const { draft } = this.store.getState();
    return records ? tonesInOrder(records).map((t) => (t.id === draft?.id ? draft : t)) : [];
  }

  selected(): Tone | null {
    const { selected } = this.store.getState();
    return this.steps().find((t) => t.id === selected) ?? null;
  }

  select(id: string | null): void {
    this.set({ selected: id, draft: null, hand: 'pan' });
  }

  async add(kind: Tone['act']['kind']): Promise<void> {
    const { records } = this.bench.store.getState();
    if (!records) return;
    await this.addActs([ACTS[kind].fresh(records.picture)]);
  }

  /** Adds steps on top of the stack and opens the last one. */
  async addActs(acts: readonly Tone['act'][], label?: string): Promise<void> {
    const top = this.steps().at(-1)?.position ?? 0;
    const added = acts.map((act, k): Tone => ({
      id: crypto.randomUUID(),
      position: top + 1 + k,
      enabled: true,
      strength: 1,
      mask: null,
      act,
    }));
    const last = added.at(-1);
    if (!last) return;
    await this.bench.change(
      label ?? `Add ${ACTS[last.act.kind].name.toLowerCase()}`,
      added.map((after) => ({ entity: 'tone', id: after.id, after })),
    );
    this.select(last.id);
    if (last.act.kind === 'strokes') this.set({ hand: 'stroke' });
  }

  tryOut(draft: Tone): void {
    this.set({ draft });
  }

  /** Keeps a step as it was tried out. */
  async keep(after: Tone, label?: string): Promise<void> {
    this.set({ draft: after });
    await this.bench.change(label ?? `Change ${ACTS[after.act.kind].name.toLowerCase()}`, [
      { entity: 'tone', id: after.id, after },
    ]);
    if (this.store.getState().draft === after) this.set({ draft: null });
  }

  async remove(id: string): Promise<void> {
    await this.bench.change('Delete tone step', [{ entity: 'tone', id, after: null }]);
    if (this.store.getState().selected === id) this.select(null);
  }

  /** Lets a step change places with its neighbour, up (1) or down (-1). */
  async move(id: string, by: 1 | -1): Promise<void> {
    const steps = this.steps();
    const at = steps.findIndex((t) => t.id === id);
    const [one, other] = [steps[at], steps[at + by]];
    if (!one || !other) return;
    await this.bench.change('Reorder tone steps', [
      { entity: 'tone', id: one.id, after: { ...one, position: other.position } },
      { entity: 'tone', id: other.id, after: { ...other, position: one.position } },
    ]);
  }

  /** Takes in what was drawn on the picture, px. */
  async drawn(points: readonly Point[]): Promise<void> {
    const { hand, width } = this.store.getState();
    const step = this.selected();
    if (!step || !points.length) return;
    if (hand === 'stroke' && step.act.kind === 'strokes') {
      const strokes = [...step.act.strokes, { points, width }];
      await this.keep({ ...step, act: { ...step.act, strokes } } as Tone, 'Draw a stroke');
    } else if (hand === 'mask' && step.mask) {
      const mask = maskWith(step.mask, points, width);
      if (mask) await this.keep({ ...step, mask } as Tone, 'Draw where it works');
    } else if (hand === 'place' && step.act.kind === 'focus') {
      await this.keep(
        { ...step, act: { ...step.act, at: points.at(-1)! } } as Tone,
        'Place the focus',
      );
      this.set({ hand: 'pan' });
    }
  }

  /** Steps that work before the one in hand. */
  private before(): Tone[] {
    const { selected } = this.store.getState();
    const steps = this.steps();
    return steps.slice(
      0,
      Math.max(
        0,
        steps.findIndex((t) => t.id === selected),
      ),
    );
  }

  /** The colour of a place, px of the region on screen, is taken as the tint or as what is to be neutral. */
  async pick(x: number, y: number): Promise<void> {
    const { hand } = this.store.getState();
    const step = this.selected();
    this.set({ hand: 'pan' });
    if (!step || !isPicking(hand)) return;
    const steps = hand === 'tint' ? [] : this.before();
    const colour = (await this.sight?.read(x, y, steps)) ?? [];
    if (colour.length < 3)
      return this.bench.set({ notice: 'This picture is grey: it has no cast.' });
    const { act } = step;
    if (hand === 'tint' && act.kind === 'toning') {
      const { hue, chroma } = hueOf(colour[0]!, colour[1]!, colour[2]!);
      const toned = { ...act, hue, chroma: Math.min(40, chroma) };
      await this.keep({ ...step, act: toned }, 'Take the tint from the picture');
    } else if (hand !== 'tint' && act.kind === 'levels')
      await this.keep(
        { ...step, act: neutralised(act, colour, hand) },
        `Take the ${hand} from the picture`,
      );
  }

  /** Sets the levels in hand so that no more than a share of the picture clips at each end. */
  async autoLevels(share: number, each: boolean): Promise<void> {
    const step = this.selected();
    const act = step?.act;
    if (act?.kind !== 'levels') return;
    await this.wait('Measuring the tones', async () => {
      const found = await api.measureLevels(this.bench.store.getState().pictureId, {
        steps: this.before(),
        share,
      });
      const [r, g = r, b = r] = found.each;
      const next = each
        ? { ...act, all: NO_LEVELS, channels: [r!, g!, b!] as const }
        : { ...act, all: found.all, channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS] as const };
      await this.keep({ ...step!, act: next }, 'Automatic levels');
    });
  }

  /** Measures what fading did and adds the steps that undo it. */
  async undoFading(): Promise<void> {
    const { pictureId } = this.bench.store.getState();
    await this.wait('Measuring the fading', async () => {
      const { acts } = await api.measureFade(pictureId);
      await this.addActs(acts as Tone['act'][], 'Undo fading');
    });
  }

  /** Does something that takes a while, and says so. */
  async wait(busy: string, act: () => Promise<void>): Promise<void> {
    this.set({ busy });
    try {
      await act();
    } catch (error) {
      this.bench.set({ notice: messageOf(error) });
    } finally {
      this.set({ busy: null });
    }
  }

  /** Looks for the prints that lie in the picture. */
  async findPrints(): Promise<readonly Quad[]> {
    const found = await api.findPrints(this.bench.store.getState().pictureId);
    // Where a side has no paper's edge, the print may go on beyond the picture.
    const prints = found.filter((p) => p.edges === 4).map((p) => p.quad);
    this.set({ prints: prints.length > 1 ? prints : [] });
    return prints;
  }

  /** Makes every print that was found a picture of its own. @returns the pictures, in reading order */
  splitPrints(): ReturnType<typeof api.splitPrints> {
    return api.splitPrints(this.bench.store.getState().pictureId, this.store.getState().prints);
  }

  frame(): Frame | null {
    const { records } = this.bench.store.getState();
    return this.store.getState().frameDraft ?? records?.frames[0] ?? null;
  }

  async keepFrame(frame: Omit<Frame, 'id'> | null, label: string): Promise<void> {
    const { records } = this.bench.store.getState();
    const known = records?.frames[0];
    const id = known?.id ?? crypto.randomUUID();
    if (!frame && !known) return this.set({ frameDraft: null });
    const after = frame && { ...frame, id };
    this.set({ frameDraft: after });
    await this.bench.change(label, [{ entity: 'frame', id, after }]);
    if (this.store.getState().frameDraft === after) this.set({ frameDraft: null });
  }
}

function maskWith(mask: ToneMask, points: readonly Point[], width: number): ToneMask | null {
  if (mask.kind === 'painted') return { ...mask, strokes: [...mask.strokes, { points, width }] };
  if (points.length < 2) return null;
  if (mask.kind === 'gradient') return { ...mask, from: points[0]!, to: points.at(-1)! };
  return points.length < 3 ? null : { ...mask, points };
}
