import { EventEmitter } from 'node:events';
import type { DonorMap, Raster, Rect, Task } from '@tersum/core';
import { Cancelled, frameOf } from '@tersum/core';
import type {
  Change,
  Edit,
  FillPlace,
  FoundMap,
  Patch,
  PictureEvent,
  Records,
  Rendering,
  TileCache,
  TilePlace,
  View,
} from '@tersum/document';
import {
  activeRepairs,
  applyEdits,
  belowName,
  groundsOf,
  repairedLevel,
  repairedTile,
  tileName,
  tileRect,
  walk,
  wideningOf,
} from '@tersum/document';
import type { Logger } from 'pino';
import { UserProblem } from '@tersum/codec';
import type { WorkPool } from '../pool/pool.js';
import { edited } from '../store/edited.js';
import type { FindingStore } from '../store/findings.js';
import type { RecordStore } from '../store/records.js';
import type { SearchStore } from '../store/searches.js';
import { freshParts } from './fresh-parts.js';
import { Lru } from './lru.js';
import type { Bases } from './bases.js';
import { Canvases } from './canvases.js';
import type { Originals } from './originals.js';
import { PatchDesk } from './patch-desk.js';
import { roughNews } from './rough.js';
import { SearchDesk } from './search-desk.js';
import type { Shown } from './shown.js';
import { tiledOf } from './shown.js';
import { viewOf } from './view-of.js';
import { WalkHosts } from './walk-hosts.js';

const PATCH_MEMORY = 800_000_000;
const TILE_MEMORY = 256_000_000;
/** Renderings whose tiles can still be asked for: the current one and a few previews. */
const RECENT = 6;
const FAR_SIDE = 640;
const ON_SCREEN = 48;

interface Desk {
  readonly events: EventEmitter;
  readonly recent: Shown[];
  /** Tiles asked for lately, the latest last: what is on somebody's screen. */
  readonly lately: Set<string>;
  current: { version: number; shown: Promise<Shown>; abort: AbortController } | null;
  /** The state told of last. */
  shown: Shown | undefined;
}

/** Turns records into shown pixels: one rendering a picture at a time, the newest version first. */
export class Renderer {
  private readonly desks = new Map<string, Desk>();
  private readonly hosts: WalkHosts;
  private readonly tiles = new Lru<Raster>(TILE_MEMORY);
  private readonly searching: SearchDesk;
  private readonly canvases: Canvases;

  constructor(
    private readonly records: RecordStore,
    private readonly originals: Originals,
    private readonly bases: Bases,
    searches: SearchStore,
    findings: FindingStore,
    pool: WorkPool,
    private readonly log: Logger,
  ) {
    this.canvases = new Canvases(pool);
    this.searching = new SearchDesk(searches, pool, (id, repair, filling) => {
      const news = roughNews(repair, filling);
      if (news) this.emit(id, news);
    });
    const patches = new PatchDesk(PATCH_MEMORY, pool);
    this.hosts = new WalkHosts(records, findings, bases, this.canvases, patches, this.searching);
  }

  /** The picture's newest state, rendered; begun when nobody has yet. */
  current(id: string): Promise<Shown> {
    const desk = this.deskOf(id);
    const { version } = this.records.picture(id);
    if (desk.current && desk.current.version === version) return desk.current.shown;
    desk.current?.abort.abort();
    const abort = new AbortController();
    const records = this.records.records(id);
    this.searching.cancelUnneeded(id, records);
    const shown = this.render(id, version, records, {
      signal: abort.signal,
      progress: (share) => this.emit(id, { type: 'progress', version, share }),
    });
    desk.current = { version, shown, abort };
    shown.then(
      (done) => {
        const onScreen = [...desk.lately].reverse();
        const fresh = freshParts(desk.shown, done, onScreen, this.tileCache(id, done));
        desk.shown = done;
        this.emit(id, { type: 'view', view: done.view, fresh });
      },
      (error: unknown) => {
        if (desk.current?.shown === shown) desk.current = null;
        if (error instanceof Cancelled) return;
        this.log.error({ err: error, picture: id }, 'rendering failed');
        this.emit(id, {
          type: 'trouble',
          message: 'The picture could not be computed. Undo the last change or reload the page.',
        });
      },
    );
    return shown;
  }

  /** As {@link current}, but when a change ends a rendering, that of the change is waited for instead. */
  async newest(id: string): Promise<Shown> {
    for (;;)
      try {
        return await this.current(id);
      } catch (error) {
        if (!(error instanceof Cancelled)) throw error;
      }
  }

  /**
   * Begins to compute what a change will show while the change is still being kept: what comes of it is found by
   * the rendering that follows. Searches wait for the record.
   */
  anticipate(id: string, { version, edits }: Pick<Change, 'version' | 'edits'>): void {
    const { shown } = this.deskOf(id);
    if (
      shown?.view.version !== version ||
      edits.some((e) => asksForSearch(e) || e.entity === 'preparation')
    )
      return;
    try {
      const records = applyEdits(this.records.records(id), edits);
      const { base } = shown;
      walk(records, base.name, frameOf(base.picture.raster), this.hosts.for(id, base)).catch(
        () => undefined,
      );
    } catch {
      // A change that cannot be made is refused where it is kept.
    }
  }

  /** Says that the records changed, and begins to render them. */
  changed(id: string): void {
    this.emit(id, { type: 'changed', version: this.records.picture(id).version });
    this.current(id).catch(() => undefined);
  }

  /** A state that is shown but not kept. */
  async preview(
    id: string,
    seen: number,
    edits: readonly Edit[],
    signal: AbortSignal,
  ): Promise<View> {
    const picture = this.records.picture(id);
    const { version } = picture;
    if (version !== seen) throw new UserProblem(409, 'The picture has changed meanwhile.');
    const records = edited(picture, this.records.records(id), edits);
    return (await this.render(id, version, records, { signal })).view;
  }

  /** What a search ended in, if it has. */
  foundSearch(search: string): Promise<FoundMap | undefined> {
    return this.searching.found(search);
  }

  /** Keeps what a search ended in that no record names yet, so that naming it shows it at once. */
  async keepSearch(
    search: string,
    map: DonorMap,
    { repair, original, below }: Pick<FillPlace, 'repair' | 'original' | 'below'>,
  ): Promise<void> {
    const name = belowName(repair, map, below, frameOf(original));
    await (
      await this.searching.keep(search, map, name)
    ).kept;
  }

  /** Notes that somebody asked for a tile: what changes in it is told without asking from now on. */
  seen(id: string, place: TilePlace): void {
    const name = tileName(place);
    const { lately } = this.deskOf(id);
    lately.delete(name);
    lately.add(name);
    if (lately.size > ON_SCREEN) lately.delete(lately.values().next().value!);
  }

  /** One tile of a state that was shown lately. @returns null when nobody knows the key any more */
  async tile(id: string, place: TilePlace, key: string): Promise<Raster | null> {
    const name = tileName(place);
    const find = (): Shown | undefined =>
      this.deskOf(id).recent.find((s) => (s.view.tiles[name] ?? s.view.base) === key);
    let shown = find();
    if (!shown) {
      await this.current(id);
      shown = find();
    }
    if (!shown || !tileRect(shown.tiled.raster, place).width) return null;
    const { raster, pyramid, patches } = shown.tiled;
    return repairedTile(raster, pyramid, patches, place, this.tileCache(id, shown));
  }

  /** The whole picture as received, small. */
  async farOriginal(id: string): Promise<Raster> {
    const { pyramid } = await this.originals.get(this.records.picture(id).original);
    return pyramid[farLevel(pyramid)]!;
  }

  /** The whole picture as repaired, small. */
  async far(id: string): Promise<Raster> {
    const { picture } = await this.current(id);
    return this.level(id, farLevel(picture.pyramid));
  }

  /** A level of the display pyramid as repaired. */
  async level(id: string, level: number): Promise<Raster> {
    const shown = await this.current(id);
    const { raster, pyramid, patches } = shown.tiled;
    return repairedLevel(raster, pyramid, patches, level, this.tileCache(id, shown));
  }

  subscribe(id: string, listener: (event: PictureEvent) => void): () => void {
    const { events } = this.deskOf(id);
    events.on('event', listener);
    return () => void events.off('event', listener);
  }

  private async render(id: string, version: number, records: Records, task: Task): Promise<Shown> {
    const row = this.records.picture(id);
    const base = await this.bases.of(row, records, task);
    const frame = frameOf(base.picture.raster);
    const rendering = await walk(records, base.name, frame, this.hosts.for(id, base), task);
    const { canvas } = groundsOf(activeRepairs(records), frame);
    const picture = await this.canvases.on(base, canvas);
    const patches = patchesOf(rendering);
    const tiled = tiledOf(picture, patches);
    const name = picture === base.picture ? base.name : `${base.name} ${nameOf(canvas)}`;
    const shown = {
      view: viewOf(version, tiled, canvas, rendering, name === row.original ? '' : name),
      picture,
      base,
      name,
      patches,
      tiled,
      owners: rendering.rendered.map((r) => r.repairId),
      widening: wideningOf(records)?.id,
    };
    const { recent } = this.deskOf(id);
    recent.unshift(shown);
    recent.length = Math.min(recent.length, RECENT);
    return shown;
  }

  /** Tiles are named by what was repaired in them: what lies around it differs from picture to picture. */
  private tileCache(id: string, { name: shown }: Shown): TileCache {
    const own = `${id} ${shown}`;
    return {
      get: (name) => this.tiles.get(`${own} ${name}`),
      set: (name, tile) => this.tiles.set(`${own} ${name}`, tile, tile.data.byteLength),
    };
  }

  private emit(id: string, event: PictureEvent): void {
    this.deskOf(id).events.emit('event', event);
  }

  private deskOf(id: string): Desk {
    let desk = this.desks.get(id);
    if (!desk) {
      desk = {
        events: new EventEmitter().setMaxListeners(100),
        recent: [],
        lately: new Set<string>(),
        current: null,
        shown: undefined,
      };
      this.desks.set(id, desk);
    }
    return desk;
  }
}

function asksForSearch({ entity, after }: Edit): boolean {
  return entity === 'repair' && after?.method.kind === 'fill';
}

function nameOf({ x, y, width, height }: Rect): string {
  return `${x},${y},${width},${height}`;
}

function patchesOf(rendering: Rendering): Patch[] {
  return rendering.rendered.map((r) => r.patch);
}

/** The first level small enough for a list. */
function farLevel(pyramid: readonly Raster[]): number {
  const level = pyramid.findIndex((r) => Math.max(r.width, r.height) <= FAR_SIDE);
  return level < 0 ? pyramid.length - 1 : level;
}
