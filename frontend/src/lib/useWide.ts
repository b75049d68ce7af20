import { useSyncExternalStore } from "react";

// Where the theme's "lg" begins.
const DESK = "(min-width: 1024px)";

/** Whether there is room for a rail at the left; what only the other kind of screen has is then not drawn at all. */
export function useWide(): boolean {
  return useSyncExternalStore(subscribe, () => window.matchMedia(DESK).matches);
}

function subscribe(changed: () => void): () => void {
  const desk = window.matchMedia(DESK);
  desk.addEventListener("change", changed);
  return () => desk.removeEventListener("change", changed);
}
