import { plainStore } from "../lib/store";

/** When each answer was known that this device gave in the server's place, by what was asked. */
const kept = new Map<string, string>();

/** When what is shown was known, while anything of it is what this device knew; empty else. */
export const keptSince = plainStore("");

/** An answer came: this device's own of then, or the server's. One fresh answer does not make the others so. */
export function noteAnswer(asked: string, since: string | null): void {
  if (since === null) kept.delete(asked);
  else kept.set(asked, since);
  if (since !== null) keptSince.set(since);
  else if (kept.size === 0) keptSince.set("");
}

/** All is asked anew: what was shown counts no more. */
export function forgetKept(): void {
  kept.clear();
  keptSince.set("");
}
