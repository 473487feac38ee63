import { Refused } from './api/client';

const SaveAfterMs = 600;
const RetryAfterMs = 2000;

export type SaveState = 'saved' | 'changed' | 'saving' | 'conflict' | 'refused' | 'offline';

/** Saves what is edited shortly after each change, and at once when somebody leaves it. What could not be saved stays here. */
export class AutoSave<T> {
  state = $state<SaveState>('saved');
  problem = $state<string | null>(null);
  /** What was saved before each change, by id. */
  #past = $state<Record<string, T[]>>({});
  #undoing: string | null = null;
  #pending: { id: string; draft: T } | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> = Promise.resolve();

  /** @param send Sends one and gives what was saved before it; what it throws says why it is not saved. */
  constructor(private readonly send: (id: string, draft: T) => Promise<T | undefined>) {}

  /** Notes a change. One to something else first saves what is pending. */
  touch(id: string, draft: T) {
    if (this.#pending && this.#pending.id !== id) void this.now();
    this.#pending = { id, draft };
    this.state = 'changed';
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.now(), SaveAfterMs);
  }

  /** Nothing is pending any more, as after a change was undone or thrown away. */
  settle() {
    clearTimeout(this.#timer);
    [this.#pending, this.state, this.problem] = [null, 'saved', null];
  }

  canUndo = (id: string): boolean => (this.#past[id]?.length ?? 0) > 0;

  /** What was saved before the last saved change. */
  back(id: string): T | undefined {
    this.#undoing = id;
    return this.#past[id]?.pop();
  }

  /** Saves at once what is not saved yet, one after another. */
  now = (): Promise<void> => {
    clearTimeout(this.#timer);
    const sent = this.#pending;
    if (!sent) return this.#sending;
    this.#pending = null;
    this.state = 'saving';
    return (this.#sending = this.#sending.then(() => this.#try(sent)));
  };

  /** Ctrl+S saves at once, as people are used to. */
  keys = (event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || event.key !== 's') return;
    event.preventDefault();
    void this.now();
  };

  async #try(sent: { id: string; draft: T }) {
    try {
      const before = await this.send(sent.id, sent.draft);
      if (before !== undefined && this.#undoing !== sent.id) this.#past[sent.id] = [...(this.#past[sent.id] ?? []), before];
      this.#undoing = null;
      if (!this.#pending) [this.state, this.problem] = ['saved', null];
    } catch (failure) {
      const status = failure instanceof Refused ? failure.status : 0;
      this.problem = (failure as Error).message;
      this.state = status === 409 ? 'conflict' : status >= 400 && status < 500 ? 'refused' : 'offline';
      if (this.state === 'offline' && !this.#pending) {
        this.#pending = sent;
        this.#timer = setTimeout(() => void this.now(), RetryAfterMs);
      }
    }
  }
}
