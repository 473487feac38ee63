/** For what opens over or beside a page: once it closes, the focus goes back to where it was when it opened, or to another place since. */
export function givesFocusBack(node: HTMLElement, elsewhere?: HTMLElement | null) {
  let before = elsewhere ?? (document.activeElement as HTMLElement | null);
  return {
    update(to?: HTMLElement | null) {
      before = to ?? before;
    },
    destroy() {
      const at = document.activeElement;
      if ((!at || at === document.body || node.contains(at)) && before?.isConnected) before.focus();
    }
  };
}
