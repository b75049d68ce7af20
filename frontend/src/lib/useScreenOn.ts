import { useEffect, useState } from "react";

/** Keeps the screen on while the page that asks is open; false where the device does not do it. */
export function useScreenOn(): boolean {
  const [on, setOn] = useState(false);
  useEffect(() => {
    if (!("wakeLock" in navigator)) return;
    let held: WakeLockSentinel | null = null;
    let left = false;
    const hold = async () => {
      if (document.visibilityState !== "visible" || (held !== null && !held.released)) return;
      try {
        const found = await navigator.wakeLock.request("screen");
        if (left) return void (await found.release());
        held = found;
        setOn(true);
        found.addEventListener("release", () => setOn(false));
      } catch {
        setOn(false); // saving its battery, or not allowed: the page works all the same
      }
    };
    // A locked phone lets go of it: it is asked for again on unlocking.
    const again = () => void hold();
    document.addEventListener("visibilitychange", again);
    void hold();
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", again);
      void held?.release();
    };
  }, []);
  return on;
}
