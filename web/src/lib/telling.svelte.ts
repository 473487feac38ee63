/** What became of the last thing that was asked for: what a page says of it. */
export class Telling {
  problem = $state<string | null>(null);
  said = $state<string | null>(null);

  /** Does it, and says what went wrong where something did. */
  async trying<T>(work: () => Promise<T>): Promise<T | undefined> {
    [this.problem, this.said] = [null, null];
    try {
      return await work();
    } catch (failure) {
      this.problem = (failure as Error).message;
      return undefined;
    }
  }
}
