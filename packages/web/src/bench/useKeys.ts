import { useEffect } from 'react';
import { keyDown, keysLeft, keyUp } from './keys.js';
import { useBench } from './model/context.js';

/** The bench's keys. */
export function useKeys(): void {
  const { bench } = useBench();
  useEffect(() => {
    const down = (event: KeyboardEvent): void => keyDown(bench, event);
    const up = (event: KeyboardEvent): void => keyUp(bench, event);
    const leave = (): void => keysLeft(bench);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', leave);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', leave);
    };
  }, [bench]);
}
