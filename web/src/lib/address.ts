import { goto } from '$app/navigation';
import { page } from '$app/state';

/**
 * Changes what stands in the page's address, which keeps what is looked at; null takes a name out.
 * @param replaceState Whether going back skips the address as it was.
 */
export function address(changes: Record<string, string | null>, replaceState = false) {
  const url = new URL(page.url.href);
  for (const [name, value] of Object.entries(changes)) {
    if (value === null) url.searchParams.delete(name);
    else url.searchParams.set(name, value);
  }
  void goto(url, { reset: false, replaceState });
}
