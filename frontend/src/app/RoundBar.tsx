import { lazy, Suspense } from "react";
import { useLocation } from "react-router";
import { activeRoundStore, stopsOf } from "../lib/round";
import { useStore } from "../lib/store";

const RoundStop = lazy(async () => ({ default: (await import("./RoundStop")).RoundStop }));

/** While a round is driven: which stop this is, and the way to the next. */
export function RoundBar() {
  const stops = stopsOf(useStore(activeRoundStore));
  const { pathname } = useLocation();
  const at = stops.findIndex(({ id }) => pathname.startsWith(`/pools/${id}`));
  const stop = stops[at];
  if (stop === undefined || pathname.endsWith("/notice")) return null;
  return (
    <Suspense fallback={null}>
      <RoundStop key={stop.id} stop={stop} position={at + 1} of={stops.length} next={stops[at + 1]} />
    </Suspense>
  );
}
