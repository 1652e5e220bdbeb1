/** The best so far. */
export interface ShortList<T extends Told> {
  readonly most: number;
  /** Best first. */
  readonly offers: readonly T[];
  /** What an offer must stay below to get in. */
  limit(): number;
  offer(found: T): void;
}

interface Told {
  /** The smaller, the better. */
  readonly misfit: number;
}

/** At most so many offers. @param isTwin tells offers of which only the better one is kept */
export function shortList<T extends Told>(
  most: number,
  isTwin?: (a: T, b: T) => boolean,
): ShortList<T> {
  const offers: T[] = [];
  return {
    most,
    offers,
    limit: () => (offers.length < most ? Infinity : offers.at(-1)!.misfit),
    offer(found) {
      const twin = isTwin ? offers.findIndex((o) => isTwin(o, found)) : -1;
      if (twin >= 0) {
        if (offers[twin]!.misfit <= found.misfit) return;
        offers.splice(twin, 1);
      }
      let at = offers.length;
      while (at > 0 && offers[at - 1]!.misfit > found.misfit) at--;
      offers.splice(at, 0, found);
      if (offers.length > most) offers.pop();
    },
  };
}
