import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { TileStore } from '../table/tile-store.js';
import type { Bench } from './bench.js';
import type { BenchState } from './state.js';

interface BenchTools {
  readonly bench: Bench;
  readonly tiles: TileStore;
}

export const BenchContext = createContext<BenchTools | null>(null);

/** The bench this part of the page belongs to. */
export function useBench(): BenchTools {
  const tools = useContext(BenchContext);
  if (!tools) throw new Error('not on a bench');
  return tools;
}

/** Some of the bench's state; draws again only when that changes. */
export function useBenchState<T>(select: (state: BenchState) => T): T {
  return useStore(useBench().bench.store, useShallow(select));
}
