/** The finder is opened from any button by this event; the keys / and Ctrl-K do the same. */
export const FIND = "kumpan.find";

export function openFinder(): void {
  window.dispatchEvent(new Event(FIND));
}
