import { useState } from "react";

/**
 * What is on its way to the server, by key: a tap on one line never stops a tap on the next one. What replaces a
 * whole thing goes by that thing's key, so that only one such change is on its way.
 */
export function useGoing() {
  const [going, setGoing] = useState<readonly string[]>([]);
  async function during<T>(keys: readonly string[], work: () => Promise<T>): Promise<T> {
    setGoing((others) => [...others, ...keys]);
    try {
      return await work();
    } finally {
      setGoing((others) => others.filter((key) => !keys.includes(key)));
    }
  }
  return { goes: (key: string) => going.includes(key), during };
}
