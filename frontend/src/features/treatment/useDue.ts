import { useEffect, useRef, useState } from "react";
import type { TreatmentStep } from "../../api/types";

const LOOK_EVERY_MS = 2_000;
const TONE_HZ = 660;
const TONE_S = 0.35;
const BUZZ_MS = [250, 120, 250];

/** Two short tones; silent where the browser has not been touched yet or has no sound. */
function sound(): void {
  try {
    const audio = new AudioContext();
    for (const start of [0, TONE_S * 1.5]) {
      const tone = audio.createOscillator();
      tone.frequency.value = TONE_HZ;
      tone.connect(audio.destination);
      tone.start(audio.currentTime + start);
      tone.stop(audio.currentTime + start + TONE_S);
    }
    window.setTimeout(() => void audio.close(), 3_000);
  } catch {
    // The words and the title say it too.
  }
}

interface Due {
  due: boolean;
  missed: boolean;
  /** Whole minutes until then; 0 when it is due. */
  left_min: number;
}

/** Whether the step that is next has fallen due: sounds once, and says when it was while the page was away. */
export function useDue(step: TreatmentStep | undefined, rings = true): Due {
  const [now, setNow] = useState(() => Date.now());
  const [missed, setMissed] = useState(false);
  const said = useRef<number | null>(null);
  const first = useRef(true);
  const at = step === undefined ? null : new Date(step.at).getTime();
  const due = at !== null && now >= at;

  useEffect(() => {
    const look = () => setNow(Date.now());
    const timer = window.setInterval(look, LOOK_EVERY_MS);
    document.addEventListener("visibilitychange", look);
    return () => {
      window.clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, []);

  useEffect(() => {
    const number = step?.number ?? null;
    if (number === null) return;
    if (!due) {
      first.current = false;
      if (said.current !== number) setMissed(false);
      return;
    }
    if (said.current === number) return;
    said.current = number;
    // What was due when the sheet was opened needs no bell; what falls due in an open page does.
    setMissed(first.current || document.visibilityState === "hidden");
    if (!first.current && rings) {
      sound();
      navigator.vibrate?.(BUZZ_MS);
    }
    first.current = false;
  }, [due, step?.number, rings]);

  useEffect(() => {
    if (!due || step === undefined || !rings) return;
    const before = document.title;
    document.title = `Due now: ${step.step.title}`;
    return () => {
      document.title = before;
    };
  }, [due, step, rings]);

  return { due, missed, left_min: at === null ? 0 : Math.max(0, Math.ceil((at - now) / 60_000)) };
}
