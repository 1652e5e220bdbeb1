import type { Records } from '@tersum/document';

/** The new records, but with the old objects wherever nothing changed, so that only what changed is drawn anew. */
export function sharing(known: Records, news: Records): Records {
  const share = <T extends { readonly id: string }>(
    old: readonly T[],
    fresh: readonly T[],
  ): T[] => {
    const byId = new Map(old.map((item) => [item.id, item]));
    return fresh.map((item) => {
      const before = byId.get(item.id);
      return before && JSON.stringify(before) === JSON.stringify(item) ? before : item;
    });
  };
  return {
    layers: share(known.layers, news.layers),
    repairs: share(known.repairs, news.repairs),
    tones: share(known.tones, news.tones),
    frames: share(known.frames, news.frames),
    preparations: share(known.preparations, news.preparations),
  };
}
