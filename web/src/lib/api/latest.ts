import { orThrow } from './client';

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** A question to the server; null when there is nothing to ask. */
export type Question<T> = ((signal: AbortSignal) => Promise<Answer<T>>) | null;

/** What is known of a question's answer. */
export type Known<T> = { value: T | null; problem: string | null; asking: boolean };

/**
 * Puts a question that changes to the server, one at a time: a new question ends the one before it, which leaves its connection to others;
 * the same question asked again waits for the answer that is on its way, so that news which come faster than answers hold nothing up.
 */
export class Latest<T> {
  #question: Question<T> = null;
  #stop: AbortController | null = null;
  #again = false;

  constructor(private readonly tell: (known: Partial<Known<T>>) => void) {}

  ask(question: Question<T>) {
    this.#stop?.abort();
    [this.#stop, this.#question, this.#again] = [null, question, false];
    void this.#go();
  }

  askAgain() {
    if (this.#stop) this.#again = true;
    else void this.#go();
  }

  async #go() {
    if (!this.#question) {
      // What was under way is not waited for any more.
      this.tell({ asking: false });
      return;
    }
    const stop = (this.#stop = new AbortController());
    this.tell({ asking: true });
    let known: Partial<Known<T>>;
    try {
      known = { value: orThrow(await this.#question(stop.signal)), problem: null };
    } catch (failure) {
      // The browser's own word for a server that is not there is of no use to anybody.
      known = { problem: failure instanceof TypeError ? 'The server does not answer.' : (failure as Error).message };
    }
    if (stop.signal.aborted) return;
    this.#stop = null;
    this.tell({ ...known, asking: false });
    if (this.#again) {
      this.#again = false;
      void this.#go();
    }
  }
}
