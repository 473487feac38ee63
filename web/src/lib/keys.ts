/** Whether a key belongs to a field or an open dialog rather than to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return !!target?.closest('input, select, textarea, dialog[open]');
}

type Key = [key: string, what: string];

const mark: Key = ['M', 'mark what you noticed in what plays, at this moment'];
const everywhere: Key[] = [['?', 'this list']];
const panel: Key[] = [
  ['Enter', 'open what is chosen; the keys go on in the panel'],
  ['Left, Right', 'in the panel: from frame to frame'],
  ['Home, End', 'in the panel: first and last frame'],
  ['Esc', 'close the panel, back to where you were']
];

/** The keys of each page, by how its address begins; the first that fits. */
const pages: [RegExp, Key[]][] = [
  [
    /^\/timelines\/[^/]+\/passages/,
    [
      ['Up, Down', 'choose a passage'],
      ['Shift Up, Down', 'choose several'],
      ['Enter', 'edit its title; again, back to the rows'],
      ['N', 'a new passage after the chosen ones'],
      ['D', 'duplicate'],
      ['S', 'split in two'],
      ['X', 'delete'],
      ['[ and ]', 'move up and down'],
      ['B', 'build a series'],
      ['U, Shift U', 'undo, redo']
    ]
  ],
  [/^\/timelines\/[^/]+/, [['Space', 'play, or stop what plays'], ['P', 'next smaller preview scale, then full again'], ['Arrows', 'move over the sheet'], ...panel, mark]],
  [/^\/(trials|runs)\/\d+/, [...panel, mark]],
  [/^\/trials/, [mark]],
  [/^\/machines/, [['Ctrl S', 'save changes']]],
  [/^\/compare/, [['Left, Right', 'in step: a slot back or on'], ['N, Shift N', 'in step: the next, or last, place where the runs differ'], ['Home, End', 'in step: first and last slot'], ['Esc', 'in step: close it']]],
  [/^/, []]
];

export const keysOf = (path: string): Key[] => [...pages.find(([page]) => page.test(path))![1], ...everywhere];
