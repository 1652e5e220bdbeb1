import type { Point } from '@tersum/core';
import type { Repair, Site } from '@tersum/document';
import { activeRepairs, shiftDonor, siteMiddle } from '@tersum/document';
import type { PointerEvent as ReactPointerEvent, RefObject } from 'react';
import { useMemo } from 'react';
import { useBench } from '../model/context.js';
import { addToChain, BARE } from '../model/drafting.js';
import type { Bench } from '../model/bench.js';
import { addGuide } from '../model/fills.js';
import { scribble } from '../model/grounds.js';
import type { FillHand, Marking } from '../model/state.js';
import { shownCanvas, shapeNow } from '../model/state.js';
import { addFindingAt, markArea } from '../model/survey-acts.js';
import { donorOf, withDonor } from '../model/donors.js';
import { outlineDrawnThing } from '../model/drafting.js';
import { hits, movedBy, repairEdit } from '../model/repairs.js';
import { hideOrShow, setPin } from '../model/pieces.js';
import { useWheelZoom } from './useWheelZoom.js';
import { panned, toPicture } from './viewport.js';

type Press = ReactPointerEvent<HTMLElement>;

/** What the pointer is in the middle of. */
type Doing =
  | { readonly kind: 'pan'; last: Point }
  | { readonly kind: 'stroke' }
  | { readonly kind: 'reveal'; readonly piece: Repair; readonly show: boolean }
  | { readonly kind: 'scribble'; readonly fill: Repair; readonly hand: FillHand }
  | { readonly kind: 'outline'; readonly corners: number; readonly from: Point }
  | { readonly kind: 'rectangle'; readonly from: Point }
  | { readonly kind: 'mark'; readonly marking: Marking }
  | { readonly kind: 'move'; readonly from: Point; readonly repair: Repair; moved: Repair | null };

/** Least distance between points of a free stroke, screen px. */
const GRAIN = 2;
/** A press that moves less is a click, screen px. */
const CLICK_STRAYS = 6;

/** Pointer and wheel on the table: panning, zooming, drawing sites, picking and moving repairs. */
export function useGestures(frame: RefObject<HTMLElement | null>) {
  const { bench } = useBench();
  useWheelZoom(frame);
  return useMemo(() => gesturesOn(bench), [bench]);
}

/** The handlers themselves. */
export function gesturesOn(bench: Bench) {
  let doing: Doing | null = null;

  const screenOf = (event: Press): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return [event.clientX - box.left, event.clientY - box.top];
  };
  const pictureOf = (event: Press): Point => {
    const { viewport, table } = bench.store.getState();
    return viewport ? toPicture(viewport, table, screenOf(event)) : [0, 0];
  };
  const draw = (site: Site): void => bench.set({ draft: { site, ...BARE } });

  const press = (at: Point): Doing | null => {
    const state = bench.store.getState();
    const { draft, pickingDonor, addingFinding, marking, selected, records } = state;
    if (addingFinding) {
      void addFindingAt(bench, at);
      return null;
    }
    if (marking) {
      draw({ kind: 'outline', points: [[at[0], at[1]]] });
      return { kind: 'mark', marking };
    }
    if (pickingDonor) {
      nameDonor(bench, at);
      return null;
    }
    switch (shapeNow(state)) {
      case 'dab':
        void bench.mend({ kind: 'dab', at: [at[0], at[1]] });
        return null;
      case 'thing':
      case 'stroke':
        draw({ kind: 'stroke', points: [[at[0], at[1]]] });
        return { kind: 'stroke' };
      case 'chain':
        addToChain(bench, at);
        return null;
      case 'outline': {
        const corners = draft?.site.kind === 'outline' ? draft.site.points : [];
        draw({ kind: 'outline', points: [...corners, [at[0], at[1]]] });
        return { kind: 'outline', corners: corners.length, from: at };
      }
      case 'rectangle':
        return { kind: 'rectangle', from: at };
      case 'pick': {
        const open = records?.repairs.find((r) => r.id === selected);
        if (open?.method.kind === 'piece') {
          const { pieceHand } = state;
          if (pieceHand === 'pins') {
            setPin(bench, open, at);
            return null;
          }
          if (pieceHand === 'show' || pieceHand === 'hide') {
            draw({ kind: 'stroke', points: [[at[0], at[1]]] });
            return { kind: 'reveal', piece: open, show: pieceHand === 'show' };
          }
        }
        if (open?.method.kind === 'fill' && state.fillHand !== 'pick') {
          draw({ kind: 'stroke', points: [[at[0], at[1]]] });
          return { kind: 'scribble', fill: open, hand: state.fillHand };
        }
        const hit = repairAt(bench, at);
        const repair = hit && records?.repairs.find((r) => r.id === hit);
        const already = hit === selected;
        bench.set({ selected: hit, also: [] });
        return repair && already ? { kind: 'move', from: at, repair, moved: null } : null;
      }
    }
  };

  const drag = (now: Doing, at: Point): void => {
    const { draft, viewport } = bench.store.getState();
    if (now.kind === 'stroke' || now.kind === 'outline' || isPainted(now)) {
      if (!draft || (draft.site.kind !== 'stroke' && draft.site.kind !== 'outline')) return;
      const { points } = draft.site;
      const last = points.at(-1)!;
      const grain = GRAIN / viewport!.zoom;
      if (Math.hypot(at[0] - last[0], at[1] - last[1]) < grain) return;
      draw({ kind: draft.site.kind, points: [...points, [at[0], at[1]]] });
    } else if (now.kind === 'rectangle') draw(rectangleOf(now.from, at));
    else if (now.kind === 'move') {
      now.moved = movedBy(now.repair, at[0] - now.from[0], at[1] - now.from[1]);
      if (now.moved.method.kind !== 'fill') bench.tryOut([repairEdit(now.moved)]);
      bench.set({
        sliding: now.moved,
        draft: now.moved.method.kind === 'piece' ? null : { site: now.moved.site, ...BARE },
      });
    }
  };

  const release = (now: Doing): void => {
    const { draft } = bench.store.getState();
    if (now.kind === 'pan') return;
    if (now.kind === 'move') {
      bench.set({ draft: null });
      if (now.moved) void bench.change('Move a repair', [repairEdit(now.moved)]);
      return;
    }
    if (!draft) return;
    const { site } = draft;
    if (now.kind === 'mark') {
      bench.set({ draft: null, marking: null });
      if (site.kind === 'outline' && site.points.length > 2)
        void markArea(bench, now.marking, site.points);
      return;
    }
    if (now.kind === 'reveal') {
      bench.set({ draft: null });
      if (site.kind === 'stroke') hideOrShow(bench, now.piece, site.points, now.show);
      return;
    }
    if (now.kind === 'scribble') {
      bench.set({ draft: null });
      if (site.kind !== 'stroke') return;
      if (now.hand === 'guide') addGuide(bench, now.fill, site.points);
      else scribble(bench, now.fill, site.points, now.hand === 'allow');
      return;
    }
    if (shapeNow(bench.store.getState()) === 'thing' && site.kind === 'stroke') {
      void outlineDrawnThing(bench, site.points);
      return;
    }
    if (now.kind === 'outline' && site.kind === 'outline') {
      const { viewport } = bench.store.getState();
      const drawn = site.points.slice(now.corners);
      // A press that hardly moved set a corner; the outline goes on.
      if (strayed(drawn, now.from) * viewport!.zoom < CLICK_STRAYS)
        return draw({ kind: 'outline', points: site.points.slice(0, now.corners + 1) });
      if (site.points.length < 3) return bench.set({ draft: null });
    }
    bench.set({ draft: null });
    if (site.kind === 'stroke' && site.points.length === 1)
      void bench.mend({ kind: 'dab', at: site.points[0]! });
    else void bench.mend(site);
  };

  return {
    onPointerDown(event: Press) {
      event.currentTarget.focus({ preventScroll: true });
      if (doing) return;
      const pan = event.button === 1 || event.button === 2;
      doing = pan
        ? { kind: 'pan', last: screenOf(event) }
        : event.button === 0
          ? press(pictureOf(event))
          : null;
      if (doing) event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove(event: Press) {
      const { viewport } = bench.store.getState();
      if (!viewport) return;
      if (doing?.kind === 'pan') {
        const at = screenOf(event);
        bench.set({ viewport: panned(viewport, at[0] - doing.last[0], at[1] - doing.last[1]) });
        doing.last = at;
        return;
      }
      const at = pictureOf(event);
      bench.set({ pointer: at });
      if (doing) drag(doing, at);
    },
    onPointerUp() {
      const now = doing;
      doing = null;
      if (now) release(now);
    },
    onPointerCancel() {
      doing = null;
      bench.set({ draft: null });
    },
    onPointerLeave() {
      if (!doing) bench.set({ pointer: null });
    },
    onContextMenu(event: { preventDefault(): void }) {
      event.preventDefault();
    },
  };
}

/** Strokes that make no repair. */
function isPainted({ kind }: Doing): boolean {
  return kind === 'reveal' || kind === 'scribble' || kind === 'mark';
}

/** The topmost repair at a picture point. */
function repairAt(bench: Bench, at: Point): string | null {
  const state = bench.store.getState();
  const { records } = state;
  if (!records) return null;
  const frame = shownCanvas(state, records.picture);
  return (
    activeRepairs(records)
      .reverse()
      .find((r) => hits(r, at, frame))?.id ?? null
  );
}

/** A click that says where to copy from: for the selected repair when picking, else for the next one. */
export function nameDonor(bench: Bench, at: Point): void {
  const { tool, selected, records } = bench.store.getState();
  const repair = records?.repairs.find((r) => r.id === selected);
  bench.set({ pickingDonor: false });
  if (repair && donorOf(repair)) {
    const [x, y] = siteMiddle(repair);
    const donor = { dx: Math.round(at[0] - x), dy: Math.round(at[1] - y), picture: null };
    void bench.change('Move a donor', [repairEdit(withDonor(repair, donor))]);
    return;
  }
  const { dx: _, dy: __, ...laid } = shiftDonor(0, 0);
  const copies = tool.method === 'clone' || tool.method === 'graft' || tool.method === 'patch';
  bench.setTool({
    donor: { kind: 'place', at, laid },
    ...(copies ? {} : { method: 'clone' as const }),
  });
}

function rectangleOf(a: Point, b: Point): Site {
  const x = Math.round(Math.min(a[0], b[0]));
  const y = Math.round(Math.min(a[1], b[1]));
  return {
    kind: 'rectangle',
    x,
    y,
    width: Math.max(1, Math.round(Math.max(a[0], b[0])) - x),
    height: Math.max(1, Math.round(Math.max(a[1], b[1])) - y),
  };
}

function strayed(points: readonly Point[], from: Point): number {
  return points.reduce((most, [x, y]) => Math.max(most, Math.hypot(x - from[0], y - from[1])), 0);
}
