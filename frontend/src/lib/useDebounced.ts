import { useEffect, useRef, useState } from "react";

/** A value that follows once it has been still for a while. Compared by content. */
export function useDebounced<T>(value: T, milliseconds: number): T {
  const [settled, setSettled] = useState(value);
  const text = JSON.stringify(value);
  const latest = useRef(value);
  latest.current = value;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the text stands for the value
  useEffect(() => {
    const timer = setTimeout(() => setSettled(latest.current), milliseconds);
    return () => clearTimeout(timer);
  }, [text, milliseconds]);
  return settled;
}
