import type { Quad } from '@tersum/core';
import type { Frame } from '@tersum/document';
import type { Remote } from 'comlink';
import { transfer, wrap } from 'comlink';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { messageOf } from '../../api/client.js';
import { getPart } from '../../api/finish.js';
import { useBench, useBenchState } from '../../bench/model/context.js';
import { useFinish, useFinishState } from '../model/context.js';
import type { Painted, RegionPlace, Tones, ToneWorker } from './tone-worker.js';

/** ms after the last change until the tones are charted. */
const REST = 150;

interface Size {
  readonly width: number;
  readonly height: number;
}

/** The part of the picture that is on screen, full px, and how much it is reduced. */
export interface Shown {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly factor: number;
}

/**
 * Paints the part of the picture on screen through the tone stack, in a worker, again whenever it or a step changes; of
 * wishes that come while one is painted, only the newest counts.
 * @param draw puts what was painted on screen; at once, not by way of a state
 */
export function useTonedPicture(shown: Shown | null, draw: (painted: Painted) => void) {
  const { bench } = useBench();
  const finish = useFinish();
  const version = useBenchState((s) => s.view?.version ?? null);
  const records = useBenchState((s) => s.records);
  const { draft, frameDraft, before, clipping, part, zoom } = useFinishState((s) => s);
  const [size, setSize] = useState<Size | null>(null);
  const [tones, setTones] = useState<Tones | null>(null);
  const [loaded, setLoaded] = useState<RegionPlace | null>(null);
  const worker = useRef<Remote<ToneWorker> | null>(null);

  useEffect(() => {
    const thread = new Worker(new URL('./tone-worker.ts', import.meta.url), { type: 'module' });
    worker.current = wrap<ToneWorker>(thread);
    return () => {
      thread.terminate();
      worker.current = null;
    };
  }, []);

  const key = shown && [shown.x, shown.y, shown.width, shown.height, shown.factor].join(' ');
  const picture = records?.picture;
  useEffect(() => {
    if (!shown || version === null || !picture) return;
    const gone = new AbortController();
    getPart(picture.id, shown, shown.factor, gone.signal)
      .then(async (raster) => {
        const place = {
          width: picture.width,
          height: picture.height,
          x: shown.x,
          y: shown.y,
          scale: shown.factor,
        };
        await worker.current?.load(transfer(raster, [raster.data.buffer as ArrayBuffer]), place);
        if (!gone.signal.aborted) setLoaded(place);
      })
      .catch((error: unknown) => {
        if (!gone.signal.aborted) bench.set({ notice: messageOf(error) });
      });
    return () => gone.abort();
    // The rest of `shown` stands in its key.
  }, [key, version, picture?.id]);

  const [frame] = records?.frames ?? [];
  const used = part === 'frame' || zoom === 'whole' ? null : (frameDraft ?? frame ?? null);
  const wish = useMemo(() => {
    if (!loaded) return null;
    const steps = before ? [] : finish.steps();
    return { steps, frame: used && framedIn(used, loaded), clipping };
    // Steps follow from records and draft.
  }, [loaded, records?.tones, draft, before, used, clipping]);

  const next = useRef<typeof wish>(null);
  const painting = useRef(false);
  // Before the browser draws: a dial should not wait for a frame.
  useLayoutEffect(() => {
    next.current = wish;
    if (painting.current) return;
    painting.current = true;
    void (async () => {
      while (next.current && worker.current) {
        const now = next.current;
        next.current = null;
        const done = await worker.current.paint(now);
        if (done) {
          draw(done as Painted);
          const { width, height } = done;
          setSize((s) => (s?.width === width && s.height === height ? s : { width, height }));
        }
      }
      painting.current = false;
    })();
    // Drawing their chart takes longer than painting the picture: it waits until the dial rests.
    const rest = setTimeout(() => {
      void worker.current?.tones().then((found) => found && setTones(found));
    }, REST);
    return () => clearTimeout(rest);
  }, [wish]);

  useEffect(() => {
    finish.sight = {
      read: (x, y, steps) =>
        worker.current?.read(Math.round(x), Math.round(y), steps) ?? Promise.resolve([]),
    };
    return () => {
      finish.sight = null;
    };
  }, [finish]);
  return { size, tones, place: loaded };
}

/** A frame in the px of a reduced region; as large as the region shows it. */
function framedIn(frame: Frame, place: RegionPlace) {
  const quad = frame.quad.map(([x, y]) => [
    (x + 0.5 - place.x) / place.scale - 0.5,
    (y + 0.5 - place.y) / place.scale - 0.5,
  ]) as unknown as Quad;
  return {
    quad,
    width: Math.max(1, Math.round(frame.width / place.scale)),
    height: Math.max(1, Math.round(frame.height / place.scale)),
  };
}
