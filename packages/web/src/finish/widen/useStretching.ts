import type { Point, Raster, Sides } from '@tersum/core';
import type { Remote } from 'comlink';
import { transfer, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { StretchWorker, Stretching } from './stretch-worker.js';

/** A small copy of a picture, and how many full px a pixel of it stands for. */
export interface SmallCopy {
  readonly picture: Raster;
  readonly factor: number;
}

/**
 * The small copy stretched to any sides, in a worker, again whenever they change; of wishes that come while one is laid only
 * the newest counts.
 * @param sides full px; null while nothing is to be shown
 */
export function useStretching(
  copy: SmallCopy | null,
  subject: readonly (readonly Point[])[] | null,
  sides: Sides | null,
): Stretching | null {
  const [shown, setShown] = useState<Stretching | null>(null);
  const worker = useRef<Remote<StretchWorker> | null>(null);
  const [ready, setReady] = useState(false);
  const wanted = sides !== null;
  useEffect(() => {
    if (!copy || !subject) return;
    const thread = new Worker(new URL('./stretch-worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<StretchWorker>(thread);
    worker.current = remote;
    const { picture, factor } = copy;
    const kept = subject.map((points) =>
      points.map(([x, y]): Point => [(x + 0.5) / factor - 0.5, (y + 0.5) / factor - 0.5]),
    );
    const own = { ...picture, data: picture.data.slice() };
    void remote
      .load(transfer(own, [own.data.buffer as ArrayBuffer]), kept, factor)
      .then(() => setReady(true));
    return () => {
      thread.terminate();
      worker.current = null;
      setReady(false);
    };
  }, [copy, subject]);

  const next = useRef<Sides | null>(null);
  const laying = useRef(false);
  useEffect(() => {
    if (!ready || !sides || !copy) return;
    const small = (v: number): number => Math.round(v / copy.factor);
    next.current = {
      left: small(sides.left),
      right: small(sides.right),
      top: small(sides.top),
      bottom: small(sides.bottom),
    };
    if (laying.current) return;
    laying.current = true;
    void (async () => {
      while (next.current && worker.current) {
        const now = next.current;
        next.current = null;
        const done = await worker.current.stretch(now);
        if (done) setShown(done as Stretching);
      }
      laying.current = false;
    })();
  }, [ready, sides, copy]);
  return wanted ? shown : null;
}
