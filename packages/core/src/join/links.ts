import type { Landmarks } from '../register/register.js';
import { registered } from '../register/register.js';
import type { Pair } from '../register/match.js';
import type { Homography } from '../shape/homography.js';
import type { Crew } from '../task/crew.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';

/** Two frames that show the same things. */
export interface Link {
  readonly one: number;
  readonly other: number;
  /** Takes px of `one` to px of `other`. */
  readonly map: Homography;
  /** The same places in both. */
  readonly pairs: readonly Pair[];
}

/** Frames that hang together, and how to reach each from the middle one. */
export interface Chain {
  readonly root: number;
  /** Frames in the order they are reached, the root left out; `from` is reached before. */
  readonly steps: readonly { readonly frame: number; readonly from: number; readonly link: Link }[];
  /** Frames that hang together with the root, itself included. */
  readonly frames: readonly number[];
}

/** Every pair of frames that overlap. */
export function linksOf(frames: readonly Landmarks[], crew: Crew, task?: Task): Link[] {
  const links: Link[] = [];
  const all = (frames.length * (frames.length - 1)) / 2;
  let done = 0;
  for (let one = 0; one < frames.length; one++)
    for (let other = one + 1; other < frames.length; other++) {
      checkpoint(task, done++ / all);
      const found = registered(frames[one]!, frames[other]!, crew);
      if (found) links.push({ one, other, map: found.map, pairs: found.agreeing });
    }
  return links;
}

/** The largest set of frames that hang together, by the links with most places, from the frame in its middle. */
export function chainOf(count: number, links: readonly Link[]): Chain {
  const tree = strongest(count, links);
  const sets = Array.from({ length: count }, (_, k) => reached(k, tree));
  const most = Math.max(...sets.map((s) => s.length));
  const first = sets.find((s) => s.length === most)!;
  const frames = [...first.map((s) => s.frame)].sort((a, b) => a - b);
  // The middle is the frame from which the farthest one is nearest.
  const depth = (k: number): number => Math.max(...sets[k]!.map((s) => s.depth));
  const least = Math.min(...frames.map(depth));
  const root = frames.find((k) => depth(k) === least)!;
  const steps = sets[root]!.flatMap(({ frame, from, link }) =>
    link ? [{ frame, from, link }] : [],
  );
  return { root, steps, frames };
}

/** Kruskal's spanning forest, the links with most places first. */
function strongest(count: number, links: readonly Link[]): Link[] {
  const group = Array.from({ length: count }, (_, k) => k);
  const order = [...links].sort(
    (a, b) => b.pairs.length - a.pairs.length || a.one - b.one || a.other - b.other,
  );
  return order.filter(({ one, other }) => {
    const [from, to] = [group[one]!, group[other]!];
    if (from === to) return false;
    group.forEach((g, k) => {
      if (g === from) group[k] = to;
    });
    return true;
  });
}

interface Reached {
  readonly frame: number;
  readonly from: number;
  readonly link: Link | null;
  readonly depth: number;
}

function reached(start: number, tree: readonly Link[]): Reached[] {
  const found: Reached[] = [{ frame: start, from: start, link: null, depth: 0 }];
  for (const at of found)
    for (const link of tree) {
      if (link.one !== at.frame && link.other !== at.frame) continue;
      const frame = link.one === at.frame ? link.other : link.one;
      if (found.some((f) => f.frame === frame)) continue;
      found.push({ frame, from: at.frame, link, depth: at.depth + 1 });
    }
  return found;
}
