import type { FreshPart, View } from '@tersum/document';
import { tileAddress } from '../../api/pictures.js';
import { changedTile } from './changed-tile.js';

interface Held {
  readonly bitmap: ImageBitmap;
  used: number;
}

/** A tile to draw, and whether it is the one that was asked for. */
interface Found {
  readonly bitmap: ImageBitmap | null;
  readonly fresh: boolean;
}

const MOST_TILES = 800;
const AT_ONCE = 6;

/** Loads tiles and keeps the ones used last. A place whose new content is still coming shows its old one. */
export class TileStore {
  private readonly held = new Map<string, Held>();
  private readonly coming = new Set<string>();
  /** What the server no longer has; a newer view names it differently. */
  private readonly refused = new Set<string>();
  private readonly waiting: string[] = [];
  /** Address shown last at each place of the repaired picture. */
  private readonly shownAt = new Map<string, string>();
  /** Canvas that those were shown on. */
  private shownOn = '';
  private readonly listeners = new Set<() => void>();
  private clock = 0;
  private loading = 0;
  private closed = false;

  constructor(private readonly picture: string) {}

  /** Called whenever a tile has arrived. @returns stops it */
  onArrival(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** The tile of the original at a place; asks for it when it is not here. */
  original(place: string): Found {
    const bitmap = this.take(tileAddress(this.picture, place, 'original'));
    return { bitmap, fresh: bitmap !== null };
  }

  /** The tile of a repaired state at a place; an earlier state's while the new one is coming. */
  repaired(view: View | null, place: string): Found {
    this.layOut(view);
    const address = this.addressIn(view, place);
    const bitmap = this.take(address);
    if (bitmap) {
      this.shownAt.set(place, address);
      return { bitmap, fresh: view !== null };
    }
    const before = this.shownAt.get(place);
    return {
      bitmap: (before ? this.peek(before) : null) ?? this.peekOriginal(view, place),
      fresh: false,
    };
  }

  /** Whatever is here for a place, to stand in while better is coming; asks only for the original, when there is nothing. */
  standIn(view: View | null, place: string): Found {
    this.layOut(view);
    const wanted = view && this.peek(this.addressIn(view, place));
    const before = this.shownAt.get(place);
    const known = wanted ?? (before && view ? this.peek(before) : null);
    return {
      bitmap: known ?? this.take(this.addressIn(likeOriginal(view) ? null : view, place)),
      fresh: false,
    };
  }

  private addressIn(view: View | null, place: string): string {
    return tileAddress(this.picture, place, view ? (view.tiles[place] ?? view.base) : 'original');
  }

  /** Tiles of another canvas do not stand in for those of this one. */
  private layOut(view: View | null): void {
    const canvas = view ? Object.values(view.canvas).join(' ') : this.shownOn;
    if (canvas !== this.shownOn) this.shownAt.clear();
    this.shownOn = canvas;
  }

  /** Makes new tiles out of held ones and the parts that changed in them. */
  freshen(parts: readonly FreshPart[]): void {
    for (const part of parts) {
      const address = tileAddress(this.picture, part.place, part.now);
      const before = this.peek(tileAddress(this.picture, part.place, part.before));
      if (!before || this.held.has(address)) continue;
      this.held.set(address, { bitmap: changedTile(before, part), used: ++this.clock });
    }
    this.forget();
  }

  close(): void {
    this.closed = true;
    for (const { bitmap } of this.held.values()) bitmap.close();
    this.held.clear();
    this.listeners.clear();
  }

  private peekOriginal(view: View | null, place: string): ImageBitmap | null {
    return likeOriginal(view) ? this.peek(this.addressIn(null, place)) : null;
  }

  private peek(address: string): ImageBitmap | null {
    const held = this.held.get(address);
    if (!held) return null;
    held.used = ++this.clock;
    return held.bitmap;
  }

  private take(address: string): ImageBitmap | null {
    const bitmap = this.peek(address);
    if (bitmap || this.coming.has(address) || this.refused.has(address)) return bitmap;
    // What is asked for last is looked at now: it goes first.
    this.coming.add(address);
    this.waiting.push(address);
    this.pump();
    return null;
  }

  private pump(): void {
    while (this.loading < AT_ONCE && this.waiting.length) {
      const address = this.waiting.pop()!;
      this.loading++;
      this.load(address)
        .catch(() => undefined)
        .finally(() => {
          this.loading--;
          this.coming.delete(address);
          if (this.closed) return;
          this.pump();
          for (const tell of this.listeners) tell();
        });
    }
  }

  private async load(address: string): Promise<void> {
    const response = await fetch(address);
    if (!response.ok) {
      this.refused.add(address);
      return;
    }
    const bitmap = await createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
    if (this.closed) return bitmap.close();
    this.held.set(address, { bitmap, used: ++this.clock });
    this.forget();
  }

  private forget(): void {
    if (this.held.size <= MOST_TILES) return;
    const oldest = [...this.held.entries()].sort((a, b) => a[1].used - b[1].used);
    for (const [address, { bitmap }] of oldest.slice(0, MOST_TILES / 8)) {
      bitmap.close();
      this.held.delete(address);
    }
  }
}

/** Whether a view's tiles lie where the original's do. */
function likeOriginal(view: View | null): boolean {
  return !view || view.base === 'original';
}
