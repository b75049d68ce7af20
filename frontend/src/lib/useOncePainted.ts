import { useEffect, useState } from "react";

let painted = false;

/**
 * False until the app's first frame is on the screen, then true for good: what is read first is drawn first, and
 * the rest of the first page right after it.
 */
export function useOncePainted(): boolean {
  const [known, setKnown] = useState(painted || document.hidden);
  useEffect(() => {
    if (known) return;
    let task = 0;
    const frame = requestAnimationFrame(() => {
      task = window.setTimeout(() => {
        painted = true;
        setKnown(true);
      });
    });
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(task);
    };
  }, [known]);
  return known;
}
