import { UserProblem } from '@tersum/codec';
import type { Edit, Picture, Records } from '@tersum/document';
import { applyEdits, BadChange, expectCanvas } from '@tersum/document';

/** A picture's records after edits. @throws UserProblem 422 saying why they cannot be */
export function edited(picture: Picture, before: Records, edits: readonly Edit[]): Records {
  try {
    const after = applyEdits(before, edits);
    expectCanvas(picture, after);
    return after;
  } catch (error) {
    if (error instanceof BadChange) throw new UserProblem(422, error.message);
    throw error;
  }
}
