import { useEffect, useState } from "react";

/** Seconds since it was started; null while it is not running. */
export function useTimer(): { seconds: number | null; start: () => void; stop: () => void } {
  const [since, setSince] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === null) return;
    const tick = () => setNow(Date.now());
    tick();
    const timer = window.setInterval(tick, 250);
    return () => window.clearInterval(timer);
  }, [since]);
  return {
    seconds: since === null ? null : Math.max(0, Math.floor((now - since) / 1000)),
    start: () => {
      setNow(Date.now());
      setSince(Date.now());
    },
    stop: () => setSince(null),
  };
}
