import type { Schemas } from '../api/client';

type Left = { notes: string[]; substitutes: Record<string, string[]> };

/** What imports of this visit left open, by timeline. */
class Imported {
  #left = $state<Record<string, Left>>({});

  of = (id: string): Left | undefined => this.#left[id];

  note(outcome: Schemas['ImportOutcome']) {
    this.#left[outcome.stored.timeline.id] = {
      notes: outcome.notes,
      substitutes: Object.fromEntries(outcome.missing.map((missing) => [missing.key, missing.substitutes]))
    };
  }
}

export const imported = new Imported();
