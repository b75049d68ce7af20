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

/** Aims that a hand moves: the latest is sent as soon as the one before is answered, never two at once. */
export function useWhatIf(poolId: string, units: Units) {
  const [answer, setAnswer] = useState<WhatIf | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const aims = useRef<Aims>(NONE);
  const sent = useRef<Aims | null>(null);
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
      change({ values, places: { ...aims.current.places, [measure]: to } });
    },
    [change],
  );

  /** A place let go of stands as the value that the server read there. */
  const settle = useCallback(
    (measure: Measure) => {
      const value = answer?.aims[measure];
      if (value === undefined || aims.current.places[measure] === undefined) return;
      const { [measure]: _, ...places } = aims.current.places;
      aims.current = { values: { ...aims.current.values, [measure]: value }, places };
    },
    [answer],
  );

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
