/** What a page reports about the last thing it was asked to do. */
export class Notices {
  problem = $state<string | null>(null);
  done = $state<string | null>(null);

  /** Does it, and reports what went wrong where something did. */
  async trying<T>(work: () => Promise<T>): Promise<T | undefined> {
    [this.problem, this.done] = [null, null];
    try {
      return await work();
    } catch (failure) {
      this.problem = (failure as Error).message;
      return undefined;
    }
  }
}
