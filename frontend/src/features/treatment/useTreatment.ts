import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { takeBack } from "../../api/entries";
import { outbox, postOrKeep, SAVED } from "../../api/outbox";
import { treatmentQuery } from "../../api/queries";
import type { PlanRequest, Step, Treatment, TreatmentStep } from "../../api/types";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";
import { ended } from "../../lib/text";
import type { Units } from "../../lib/units";

/** The planned amount in words that the server reads: a bag is no unit. */
function asPlanned(step: Step): string {
  return step.rounded_ml === null ? `${step.rounded_g ?? 0} g` : `${step.rounded_ml} ml`;
}

const PLAIN = {
  targets: {},
  plan: "balance",
  way: "usual",
  reason: "routine",
  incident: "formed_stool",
  today: false,
  borate: "boric_acid",
  advice: "",
  upkeep: false,
} as const;

const told = (id: string) => ({ id, at: null, person_id: personId() });

/** The sheet as it will be once the kept tick is sent. */
function asTicked(
  sheet: Treatment | undefined,
  step: TreatmentStep,
  outcome: "done" | "skipped",
  id: string,
  amount: string,
): Treatment | null {
  if (sheet === undefined) return null;
  const ticked = {
    entry_id: id,
    at: new Date().toISOString(),
    person_id: personId(),
    outcome,
    mass_g: null,
    volume_ml: null,
    amount_text: outcome === "skipped" ? null : amount || step.step.rounded_text,
  };
  const steps = sheet.steps.map((line) => (line.number === step.number ? { ...line, ticked } : line));
  return { ...sheet, steps };
}

/** A tick that came second: what was meant, until it is said whether it was the same pour. */
export interface Twice {
  id: string;
  number: number;
  amount: string;
  step: Step;
}

/** The sheet of one pool: start it, tick its steps, undo a tick. */
export function useTreatment(poolId: string, units: Units) {
  const queries = useQueryClient();
  const query = useQuery(treatmentQuery(poolId, units));
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const [twice, setTwice] = useState<Twice | null>(null);
  const metric = units === "metric";

  async function run(work: () => Promise<Treatment | null>, onConflict?: () => void): Promise<boolean> {
    setBusy(true);
    setTrouble(null);
    try {
      const sheet = await work();
      if (sheet !== null && !sheet.finished)
        queries.setQueryData(treatmentQuery(poolId, units).queryKey, sheet);
      if (outbox.get().length > 0) return true; // the server does not answer; asking it again would only wait
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      await queries.invalidateQueries({ queryKey: ["pools"] });
      return true;
    } catch (error) {
      const seen = error instanceof Trouble ? error : new Trouble(String(error), null, 0);
      if (onConflict !== undefined && seen.status === 409) {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        onConflict();
      } else setTrouble(seen);
      return false;
    } finally {
      setBusy(false);
    }
  }

  const start = (asked: PlanRequest) =>
    run(() =>
      take(
        client.POST("/api/v1/pools/{pool_id}/sheets", {
          params: { path: { pool_id: poolId }, query: { metric } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), asked: { ...PLAIN, ...asked } },
        }),
      ),
    );

  async function tick(step: TreatmentStep, outcome: "done" | "skipped", amount = ""): Promise<boolean> {
    const sheetId = query.data?.id;
    if (!sheetId) return false;
    const id = crypto.randomUUID();
    const kept = await run(
      async () => {
        const body = { ...told(id), step_number: step.number, outcome, amount, note: "" };
        const found = await postOrKeep(
          "/api/v1/pools/{pool_id}/sheets/{sheet_id}/ticks",
          { path: { pool_id: poolId, sheet_id: sheetId }, query: { metric } },
          body,
          step.step.title,
        );
        return found === SAVED ? asTicked(query.data, step, outcome, id, amount) : found;
      },
      () => setTwice({ id, number: step.number, amount, step: step.step }),
    );
    if (kept)
      notify(ended(`${outcome === "done" ? "Noted" : "Left out"}: ${step.step.title}`), () => void undo(id));
    return kept;
  }

  const undo = (entryId: string) =>
    run(async () => {
      await takeBack(entryId, "undone in the plan");
      return null;
    });

  /** The second tick was a pour of its own: it goes into the journal beside the first. */
  async function another(): Promise<void> {
    if (twice === null) return;
    const { id, step, amount } = twice;
    const kept = await run(async () => {
      await take(
        client.POST("/api/v1/pools/{pool_id}/additions", {
          params: { path: { pool_id: poolId }, query: { metric } },
          body: {
            id,
            at: null,
            person_id: personId(),
            product_id: step.product_id,
            chemical: step.chemical,
            strength_percent: step.strength_percent,
            amount: amount === "" ? asPlanned(step) : amount,
          },
        }),
      );
      return null;
    });
    if (kept) {
      setTwice(null);
      notify(ended(`Noted as another pour: ${step.title}`), () => void undo(id));
    }
  }

  /** Leave out what is still open; the rest is reckoned again from the newest test and what was poured. */
  const putAway = () =>
    run(async () => {
      const sheetId = query.data?.id;
      if (!sheetId) return null;
      return take(
        client.POST("/api/v1/pools/{pool_id}/sheets/{sheet_id}/put-away", {
          params: { path: { pool_id: poolId, sheet_id: sheetId }, query: { metric } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId() },
        }),
      );
    });

  return { query, putAway, start, tick, undo, trouble, busy, twice, same: () => setTwice(null), another };
}
