import { startTransition, useCallback, useRef, useState } from "react";
import { client, Trouble, take } from "../../api/client";
import type { Gauge, Measure, WhatIf } from "../../api/types";
import { personId } from "../../lib/person";
import type { Units } from "../../lib/units";

interface Aims {
  values: Partial<Record<Measure, number>>;
  places: Partial<Record<Measure, number>>;
}

const NONE: Aims = { values: {}, places: {} };

/** The aims with the value that the server read in place of a place; none where it read none there. */
function settled({ values, places }: Aims, found: WhatIf, measure: Measure): Aims | null {
  const value = found.aims[measure];
  if (value === undefined || places[measure] === undefined) return null;
  const { [measure]: _, ...others } = places;
  return { values: { ...values, [measure]: value }, places: others };
}

/** Aims that a hand moves: the latest is sent as soon as the one before is answered, never two at once. */
export function useWhatIf(poolId: string, units: Units) {
  const [answer, setAnswer] = useState<WhatIf | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const aims = useRef<Aims>(NONE);
  const sent = useRef<Aims | null>(null);
  const answered = useRef<{ asked: Aims; found: WhatIf } | null>(null);
  const letGo = useRef<Measure | null>(null); // a float that was let go of before its last place was answered
  const metric = units === "metric";

  const ask = useCallback(async () => {
    if (sent.current !== null) return;
    while (sent.current !== aims.current && aims.current !== NONE) {
      const asked: Aims = aims.current;
      sent.current = asked;
      try {
        const found = await take(
          client.POST("/api/v1/pools/{pool_id}/what-if", {
            params: { path: { pool_id: poolId }, query: { metric } },
            body: { values: asked.values, places: asked.places },
          }),
        );
        // While a float is dragged the answer is drawn when the hand leaves time for it; else at once.
        const dragged = Object.keys(asked.places).length > 0;
        if (aims.current === NONE) break;
        if (dragged) startTransition(() => setAnswer(found));
        else setAnswer(found);
        setTrouble(null);
        answered.current = { asked, found };
        if (letGo.current !== null && aims.current === asked) {
          aims.current = settled(asked, found, letGo.current) ?? asked;
          sent.current = aims.current;
          letGo.current = null;
        }
      } catch (error) {
        setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
        break;
      }
    }
    sent.current = null;
  }, [poolId, metric]);

  const change = useCallback(
    (next: Aims) => {
      aims.current = next;
      void ask();
    },
    [ask],
  );

  const place = useCallback(
    (measure: Measure, to: number) => {
      const { [measure]: _, ...values } = aims.current.values;
      letGo.current = null;
      change({ values, places: { ...aims.current.places, [measure]: to } });
    },
    [change],
  );

  /** A place let go of stands as the value that the server read there, once it has: never an earlier one. */
  const settle = useCallback((measure: Measure) => {
    const last = answered.current;
    if (last === null || last.asked !== aims.current) {
      letGo.current = measure;
      return;
    }
    aims.current = settled(last.asked, last.found, measure) ?? last.asked;
  }, []);

  const step = useCallback(
    (lane: Gauge, direction: 1 | -1) => {
      const nudge = lane.aim_step ?? 1;
      const from =
        aims.current.values[lane.measure] ??
        answer?.aims[lane.measure] ??
        lane.planned?.value ??
        lane.reading?.value ??
        0;
      const to = Math.max(0, (Math.round(from / nudge) + direction) * nudge);
      const { [lane.measure]: _, ...places } = aims.current.places;
      change({ values: { ...aims.current.values, [lane.measure]: Number(to.toFixed(3)) }, places });
    },
    [answer, change],
  );

  const clear = useCallback(() => {
    aims.current = NONE;
    setAnswer(null);
    setTrouble(null);
  }, []);

  /** Take these aims: the sheet is started as it is shown. */
  async function adopt(): Promise<boolean> {
    if (answer === null) return false;
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/sheets", {
          params: { path: { pool_id: poolId }, query: { metric } },
          body: {
            id: crypto.randomUUID(),
            at: null,
            person_id: personId(),
            asked: {
              plan: "balance",
              way: "usual",
              reason: "routine",
              incident: "formed_stool",
              today: false,
              borate: "boric_acid",
              advice: "",
              upkeep: false,
              targets: answer.aims,
            },
          },
        }),
      );
      return true;
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
      return false;
    }
  }

  return { answer, trouble, place, settle, step, clear, adopt };
}
