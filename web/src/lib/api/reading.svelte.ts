import { Latest, type Question } from './latest';

/** What the server says to a question, kept up to date while the page that made it is open. */
export class Reading<T> {
  value = $state.raw<T | null>(null);
  problem = $state<string | null>(null);
  asking = $state(false);
  readonly #latest = new Latest<T>((known) => Object.assign(this, known));

  /**
   * @param question Sent again when what it reads changes; null sends nothing and forgets the answer.
   * @param news When what it reads changes, the same question is asked again.
   */
  constructor(question: () => Question<T>, news: () => unknown = () => null) {
    $effect(() => {
      const asked = question();
      if (!asked) [this.value, this.problem] = [null, null];
      this.#latest.ask(asked);
      return () => this.#latest.ask(null);
    });
    let first = true;
    $effect(() => {
      news();
      if (!first) this.again();
      first = false;
    });
  }

  again() {
    this.#latest.askAgain();
  }
}
