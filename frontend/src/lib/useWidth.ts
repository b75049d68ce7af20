import { useEffect, useRef, useState } from "react";

/** How wide the page lets a drawing be: type keeps its size on a phone. */
export function useWidth(): [React.RefObject<HTMLDivElement | null>, number] {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(720);
  useEffect(() => {
    if (box.current === null || typeof ResizeObserver === "undefined") return;
    const seen = new ResizeObserver(([entry]) => entry && setWidth(Math.max(280, entry.contentRect.width)));
    seen.observe(box.current);
    return () => seen.disconnect();
  }, []);
  return [box, width];
}
