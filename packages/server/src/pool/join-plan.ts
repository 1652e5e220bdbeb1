import { UserProblem } from '@tersum/codec';
import type { Crew, Task } from '@tersum/core';
import { bareShare, CannotLay, cropBetween, frameOf, join, NothingInCommon } from '@tersum/core';
import type { JoinPlan } from '@tersum/document';
import { reducedPart } from '@tersum/document';
import type { TaskOf } from './tasks.js';

/** Longest side of the copies that are joined on trial, px. */
const TRIED = 700;
const STEPS = 10;

/** What crops of a joined picture come to, found on small copies. @throws UserProblem, Cancelled */
export function joinPlan(
  { sources, projection }: TaskOf<'join plan'>,
  crew: Crew,
  watch: Task,
): JoinPlan {
  const longest = Math.max(
    ...sources.map(({ original: { width, height } }) => Math.max(width, height)),
  );
  const factor = Math.max(1, Math.round(longest / TRIED));
  const small = sources.map(({ original, patches }) =>
    reducedPart(original, patches, frameOf(original), factor),
  );
  try {
    const { covered, picture } = join(small, { projection, crew }, watch);
    const steps = Array.from({ length: STEPS + 1 }, (_, k) => {
      const rect = cropBetween(covered, picture.width, k / STEPS);
      const invented = bareShare(covered, picture.width, rect);
      return { width: rect.width * factor, height: rect.height * factor, invented };
    });
    return { steps };
  } catch (error) {
    if (error instanceof NothingInCommon || error instanceof CannotLay)
      throw new UserProblem(
        422,
        'These pictures cannot be joined; make it to see which one does not fit.',
      );
    throw error;
  }
}
