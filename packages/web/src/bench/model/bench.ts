import type {
  Donor,
  Edit,
  FreshPart,
  PictureEvent,
  PictureRecords,
  Repair,
  Site,
} from '@tersum/document';
import { extentOf, isLine } from '@tersum/core';
import { isCopy, METHOD_NAMES } from '@tersum/document';
import type { StoreApi } from 'zustand/vanilla';
import { createStore } from 'zustand/vanilla';
import { messageOf, RequestProblem } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { BenchState, Tool } from './state.js';
import { firstState, PUT_AWAY } from './first-state.js';
import { sharing } from './sharing.js';
import { overlayOf } from './overlays.js';
import { freshMethod, laidAside, SEE_THROUGH } from './fresh.js';
import { NO_DONOR } from './donors.js';
import { freshRepair, topLayer } from './fresh-repair.js';

/** One picture on the bench: its state, and everything that can be done to it. */
export interface Bench {
  readonly store: StoreApi<BenchState>;
  /** Opens the picture and listens to it. @returns ends that */
  open(): () => void;
  /** Keeps a change. Changes are sent one after the other. */
  change(label: string, edits: readonly Edit[]): Promise<void>;
  /** Does something on the server that changes the records, after all earlier changes. */
  move(act: (version: number) => Promise<PictureRecords>): Promise<void>;
  /** Reads the records anew. */
  refresh(): Promise<void>;
  undo(): Promise<void>;
  redo(): Promise<void>;
  /** Shows records as they would be; the newest call wins. */
  tryOut(edits: readonly Edit[]): void;
  /** Makes a repair of a site with the tool's settings. */
  mend(site: Site, width?: number): Promise<void>;
  /** Lets the server look for a donor; null, with a notice, when there is none. */
  searchDonor(repair: Repair): Promise<Donor | null>;
  set(patch: Partial<BenchState>): void;
  setTool(patch: Partial<Tool>): void;
}

/**
 * @param takePixels is given pixels that changed, before the view that names them
 */
export function createBench(
  pictureId: string,
  takePixels: (fresh: readonly FreshPart[]) => void,
): Bench {
  const store = createStore<BenchState>(() => firstState(pictureId));
  const set = (patch: Partial<BenchState>): void => {
    const { selected, offers, variants } = store.getState();
    // What was being tried out for one repair is put away when another is taken up.
    if (!('selected' in patch) || patch.selected === selected) return store.setState(patch);
    store.setState({ ...patch, ...PUT_AWAY, ...(offers || variants ? { preview: null } : {}) });
  };
  const setTool = (patch: Partial<Tool>): void =>
    store.setState((s) => ({ tool: { ...s.tool, ...patch } }));
  let queue: Promise<void> = Promise.resolve();
  let trial: AbortController | null = null;

  const accept = (news: PictureRecords): void => {
    const { tool, selected, also, view, records: known } = store.getState();
    const records = known ? { ...news, ...sharing(known, news) } : news;
    const layers = new Set(records.layers.map((l) => l.id));
    const layerId = tool.layerId && layers.has(tool.layerId) ? tool.layerId : topLayer(records);
    // A change that changed nothing brings no new pixels that would end what was shown meanwhile.
    const shown = view !== null && view.version === records.picture.version;
    set({
      records,
      trouble: null,
      ...(shown ? { preview: null, sliding: null } : {}),
      computing:
        view && view.version === records.picture.version ? null : (store.getState().computing ?? 0),
      selected: records.repairs.some((r) => r.id === selected) ? selected : null,
      also: also.filter((id) => records.repairs.some((r) => r.id === id)),
      tool: layerId === tool.layerId ? tool : { ...tool, layerId },
    });
  };

  const refresh = async (): Promise<void> => {
    try {
      accept(await api.getRecords(pictureId));
      const view = await api.getView(pictureId);
      hear({ type: 'view', view, fresh: [] });
    } catch (error) {
      if (store.getState().records) set({ notice: messageOf(error) });
      else set({ trouble: messageOf(error) });
    }
  };

  const hear = (event: PictureEvent): void => {
    const { records } = store.getState();
    const version = records?.picture.version ?? 0;
    if (event.type === 'view') {
      if (event.view.version < (store.getState().view?.version ?? -1)) return;
      const newest = event.view.version >= version;
      takePixels(event.fresh);
      set({
        view: event.view,
        ...(newest
          ? {
              computing: null,
              preview: null,
              pending: null,
              sliding: null,
              rough: null,
              heat: null,
            }
          : {}),
      });
    } else if (event.type === 'progress') {
      if (event.version === version && event.share < 1) set({ computing: event.share });
    } else if (event.type === 'rough') {
      void overlayOf(event).then((rough) => {
        const { computing } = store.getState();
        if (computing !== null) set({ rough });
      });
    } else if (event.type === 'trouble')
      set({ notice: event.message, computing: null, rough: null });
    else if (event.version > version && store.getState().saving === 0) void refresh();
  };

  /** Sends a change that is made from the newest version, after all earlier ones. */
  const send = (act: (version: number) => Promise<PictureRecords>): Promise<void> => {
    store.setState((s) => ({ saving: s.saving + 1 }));
    const turn = queue.then(async () => {
      try {
        const { records } = store.getState();
        if (records) accept(await act(records.picture.version));
      } catch (error) {
        set({
          notice: messageOf(error),
          preview: null,
          computing: null,
          pending: null,
          sliding: null,
          rough: null,
        });
        if (error instanceof RequestProblem && error.status === 409) await refresh();
      } finally {
        store.setState((s) => ({ saving: s.saving - 1 }));
      }
    });
    queue = turn;
    return turn;
  };

  const change = (label: string, edits: readonly Edit[]): Promise<void> => {
    trial?.abort();
    if (!edits.length) return queue;
    return send((version) => api.postChange(pictureId, version, label, [...edits]));
  };

  const tryOut = (edits: readonly Edit[]): void => {
    trial?.abort();
    const { records, saving } = store.getState();
    if (!records || saving > 0) return;
    const mine = new AbortController();
    trial = mine;
    api
      .postPreview(pictureId, records.picture.version, [...edits], mine.signal)
      .then((preview) => {
        if (!mine.signal.aborted) set({ preview, computing: null });
      })
      .catch(() => undefined);
  };

  const mend = async (site: Site, width?: number): Promise<void> => {
    const { records, tool } = store.getState();
    if (!records) return;
    const {
      layer,
      edits,
      repair: draft,
    } = freshRepair(records, tool, site, freshMethod(tool.method, tool), {
      ...(width ? { width } : {}),
      ...(tool.method === 'piece' ? { strength: SEE_THROUGH } : {}),
    });
    // The request goes out before anything is drawn anew: pixels are waited for.
    const aside = isLaidAside(draft);
    const asked = aside ? Promise.resolve(laidAside(draft, records.picture)) : placed(draft, tool);
    set({ computing: 0, pending: site });
    const repair = await asked;
    if (!repair) return set({ computing: null, pending: null });
    const label = `${METHOD_NAMES[tool.method]}, ${site.kind}`;
    await change(label, edits(repair));
    // What is still to be slid to its place stays in hand.
    if (repair.method.kind === 'patch' || repair.method.kind === 'piece')
      set({ selected: repair.id, also: [], pieceHand: 'move' });
    if (layer && !layer.visible)
      set({ notice: `The layer “${layer.name}” is hidden, so this repair does not show yet.` });
  };

  const placed = async (repair: Repair, tool: Tool): Promise<Repair | null> => {
    if (repair.method.kind === 'fill') return guided(repair);
    if (!isCopy(repair.method)) return repair;
    const shift = await chooseShift(repair, tool);
    return shift && { ...repair, method: { ...repair.method, donor: shift } };
  };

  /** A fill of an area starts out with the guides that are plain to see. */
  const guided = async (repair: Repair): Promise<Repair> => {
    if (isLine(repair.site) || repair.method.kind !== 'fill') return repair;
    const guides = await api.findGuides(pictureId, repair, true).catch(() => []);
    return guides.length ? { ...repair, method: { ...repair.method, guides } } : repair;
  };

  const chooseShift = async (repair: Repair, tool: Tool): Promise<Donor | null> => {
    const { donor } = tool;
    if (donor.kind === 'shift') return donor.shift;
    if (donor.kind === 'place') {
      const [x, y] = startOf(repair.site);
      const shift = {
        ...donor.laid,
        dx: Math.round(donor.at[0] - x),
        dy: Math.round(donor.at[1] - y),
      };
      if (tool.keepStep) setTool({ donor: { kind: 'shift', shift } });
      return shift;
    }
    return searchDonor(repair);
  };

  const searchDonor = async (repair: Repair): Promise<Donor | null> => {
    try {
      const [found] = await api.findDonors(pictureId, repair);
      if (found) return found.donor;
      set({ notice: NO_DONOR });
    } catch (error) {
      set({ notice: messageOf(error) });
    }
    return null;
  };

  return {
    store,
    open() {
      void refresh();
      return api.listen(pictureId, hear, () => {
        if (store.getState().records) void refresh();
      });
    },
    change,
    move: send,
    refresh,
    undo: () => send((version) => api.postMove(pictureId, 'undo', version)),
    redo: () => send((version) => api.postMove(pictureId, 'redo', version)),
    tryOut,
    mend,
    searchDonor,
    set,
    setTool,
  };
}

/** Drawn on what it copies, and slid to its place afterwards. */
function isLaidAside({ method }: Repair): boolean {
  return method.kind === 'piece' || (method.kind === 'patch' && method.from === 'good');
}

/** Where a site is begun: what a donor place is measured from. */
export function startOf(site: Site): readonly [number, number] {
  if (site.kind === 'dab') return site.at;
  if (site.kind === 'stroke' || site.kind === 'chain') return site.points[0]!;
  const box = extentOf(site, { width: 1, softness: 0, flow: 1 });
  return [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2];
}
