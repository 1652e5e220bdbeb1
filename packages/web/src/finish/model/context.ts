import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { Finish, FinishState } from './finish.js';

export const FinishContext = createContext<Finish | null>(null);

/** The finish this part of the page belongs to. */
export function useFinish(): Finish {
  const finish = useContext(FinishContext);
  if (!finish) throw new Error('not on a finish page');
  return finish;
}

/** Some of the finish's state; draws again only when that changes. */
export function useFinishState<T>(select: (state: FinishState) => T): T {
  return useStore(useFinish().store, useShallow(select));
}
