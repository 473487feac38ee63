/** Whether a key belongs to a field or an open dialog rather than to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return !!target?.closest('input, select, textarea, dialog[open]');
}
