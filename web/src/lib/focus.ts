/** For what opens over or beside a page: once it closes, the focus goes back to where it was when it opened. */
export function givesFocusBack(node: HTMLElement) {
  const before = document.activeElement as HTMLElement | null;
  return {
    destroy() {
      const at = document.activeElement;
      if ((!at || at === document.body || node.contains(at)) && before?.isConnected) before.focus();
    }
  };
}
