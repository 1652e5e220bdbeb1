/** Counts what a person does: every click, drag and key that is waited for through it. */
export class Actions {
  count = 0;

  readonly act = async (doing: Promise<unknown>): Promise<void> => {
    this.count++;
    await doing;
  };
}
