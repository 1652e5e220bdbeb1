/** Something went wrong that the person can mend: the message is shown as it is. */
export class UserProblem extends Error {
  constructor(
    /** HTTP status of the answer. */
    readonly status: 400 | 403 | 404 | 409 | 413 | 415 | 422,
    message: string,
  ) {
    super(message);
    this.name = 'UserProblem';
  }
}

export function isUserProblem(error: unknown): error is UserProblem {
  return error instanceof UserProblem;
}
