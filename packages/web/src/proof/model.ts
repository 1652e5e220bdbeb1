import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { StoreApi } from 'zustand/vanilla';
import { createStore } from 'zustand/vanilla';

/** Ways of laying the picture as received and as repaired beside each other. */
export const COMPARE_WAYS = {
  flip: 'Flip',
  blink: 'Blink',
  split: 'Split',
  beside: 'Side by side',
  difference: 'Difference',
  onion: 'Overlaid',
} as const;
export type CompareWay = keyof typeof COMPARE_WAYS;

export interface ProofState {
  readonly way: CompareWay;
  /** For flip and blink: whether the picture as received is shown now. */
  readonly received: boolean;
  /** Share of the picture as received where both lie over each other. */
  readonly onion: number;
  /** Times the difference is doubled. */
  readonly doublings: number;
  /** Whether all tells lie over the picture as heat. */
  readonly heat: boolean;
  /** Whether the picture is shown as eyes will see it at its use. */
  readonly asSeen: boolean;
  /** The frame of the sweep that is looked at; null outside of the sweep. */
  readonly frame: number | null;
  /** Whether everything of the view has been drawn. */
  readonly complete: boolean;
}

export function createProof(): StoreApi<ProofState> {
  return createStore<ProofState>(() => ({
    way: 'flip',
    received: false,
    onion: 0.5,
    doublings: 3,
    heat: false,
    asSeen: false,
    frame: null,
    complete: false,
  }));
}

export const ProofContext = createContext<StoreApi<ProofState> | null>(null);

export function useProofStore(): StoreApi<ProofState> {
  const store = useContext(ProofContext);
  if (!store) throw new Error('the proof room is not open');
  return store;
}

export function useProofState<T>(pick: (state: ProofState) => T): T {
  return useStore(useProofStore(), pick);
}
