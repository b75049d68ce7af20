import { useCallback, useState } from "react";
import { keep, readSaved } from "./store";

/** What is being typed, kept on the device until it is saved: a reload or a dead server loses nothing. */
export function useDraft<T extends object>(key: string, initial: T): [T, (next: T) => void, () => void] {
  const name = `kumpan.draft.${key}`;
  const [draft, setDraft] = useState<T>(() => ({ ...initial, ...parsed<T>(readSaved(name)) }));
  const change = useCallback(
    (next: T) => {
      setDraft(next);
      keep(name, JSON.stringify(next));
    },
    [name],
  );
  const clear = useCallback(() => keep(name, null), [name]);
  return [draft, change, clear];
}

function parsed<T>(text: string | null): Partial<T> {
  if (text === null) return {};
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === "object" && value !== null ? (value as Partial<T>) : {};
  } catch {
    return {};
  }
}
