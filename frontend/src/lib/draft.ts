import { keep, readSaved } from "./store";

const nameOf = (key: string) => `kumpan.draft.${key}`;

/** What was typed and not kept yet, as this device has it; nothing where it cannot be read. */
export function savedDraft<T extends object>(key: string): Partial<T> {
  const text = readSaved(nameOf(key));
  if (text === null) return {};
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === "object" && value !== null ? (value as Partial<T>) : {};
  } catch {
    return {};
  }
}

/** Keep what is typed on this device; null forgets it. */
export function keepDraft(key: string, draft: object | null): void {
  keep(nameOf(key), draft === null ? null : JSON.stringify(draft));
}
