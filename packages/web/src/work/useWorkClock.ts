import { useEffect, useState } from 'react';
import { keepTime } from '../api/work.js';
import type { WorkRoom } from './clock.js';
import { WorkClock } from './clock.js';

const SIGNS = ['pointerdown', 'pointermove', 'keydown', 'wheel'] as const;
const TICK = 1000;

/** The clock of the room that is open. There is one at a time, and acts that count tell it. */
let running: WorkClock | null = null;

export function workClock(): WorkClock | null {
  return running;
}

/** Runs the clock of a room. @returns minutes since the last rest, whole */
export function useWorkClock(pictureId: string, room: WorkRoom): number {
  const [worked, setWorked] = useState(0);
  useEffect(() => {
    const clock = new WorkClock(room, (time) => keepTime(pictureId, time), Date.now);
    running = clock;
    const touch = (): void => clock.touch();
    const flush = (): void => clock.flush();
    for (const sign of SIGNS) window.addEventListener(sign, touch, { passive: true });
    window.addEventListener('pagehide', flush);
    const timer = setInterval(() => {
      clock.tick();
      setWorked(Math.floor(clock.worked));
    }, TICK);
    return () => {
      clearInterval(timer);
      for (const sign of SIGNS) window.removeEventListener(sign, touch);
      window.removeEventListener('pagehide', flush);
      clock.flush();
      if (running === clock) running = null;
    };
  }, [pictureId, room]);
  return worked;
}
