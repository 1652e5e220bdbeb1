import { useEffect } from 'react';

/**
 * Follows a key that is held down; fields keep their keys.
 * @param onHeld told when it goes down and when it is let go; must be stable
 */
export function useHeldKey(key: string, onHeld: (on: boolean) => void): void {
  useEffect(() => {
    const held = (on: boolean) => (event: KeyboardEvent) => {
      const { tagName } = event.target as HTMLElement;
      if (event.key.toLowerCase() === key && tagName !== 'INPUT' && tagName !== 'TEXTAREA')
        onHeld(on);
    };
    const [down, up] = [held(true), held(false)];
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  }, [key, onHeld]);
}
