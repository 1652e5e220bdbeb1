import type { Point } from '@tersum/core';
import type { Picture } from '@tersum/document';
import { useCallback, useEffect, useState } from 'react';
import { messageOf } from '../../api/client.js';
import { findSubject, getPart } from '../../api/finish.js';
import { outlineThing } from '../../api/pictures.js';
import { getSurvey, setSurvey } from '../../api/survey.js';
import type { SmallCopy } from './useStretching.js';

/** Longest side of the copy a plan is drawn with, px. */
const SMALL = 280;

/** What a plan is made by: a small copy of the picture without its widening, and what the picture is of. */
export function usePlanned({ id, width, height, version }: Picture) {
  const [copy, setCopy] = useState<SmallCopy | null>(null);
  const [subject, setSubject] = useState<readonly (readonly Point[])[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    const gone = new AbortController();
    const factor = Math.max(1, Math.min(64, Math.round(Math.max(width, height) / SMALL)));
    getPart(id, { x: 0, y: 0, width, height }, factor, gone.signal, 'unwidened').then(
      (picture) => setCopy({ picture, factor }),
      (error: unknown) => !gone.signal.aborted && setProblem(messageOf(error)),
    );
    return () => gone.abort();
    // Whatever changes the picture makes another copy.
  }, [id, width, height, version]);
  useEffect(() => {
    const gone = new AbortController();
    findSubject(id, gone.signal).then(setSubject, (error: unknown) => {
      if (!gone.signal.aborted) setProblem(messageOf(error));
    });
    return () => gone.abort();
  }, [id, asked]);

  /** Takes the thing under a scribble for the subject, or has it found again. */
  const mark = useCallback(
    async (scribble: readonly Point[] | null): Promise<void> => {
      setProblem(null);
      try {
        const outline = scribble && (await outlineThing(id, scribble));
        if (scribble && !outline)
          return setProblem('Nothing stands out there. Scribble over more of the subject.');
        const { settings } = await getSurvey(id);
        const marked = outline && outline.map(([x, y]): [number, number] => [x, y]);
        await setSurvey(id, { ...settings, subject: marked });
        setSubject(null);
        setAsked((n) => n + 1);
      } catch (error) {
        setProblem(messageOf(error));
      }
    },
    [id],
  );
  return { copy, subject, problem, mark };
}
