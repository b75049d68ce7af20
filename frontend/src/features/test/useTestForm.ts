import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { client, take } from "../../api/client";
import { postOrKeep, SAVED } from "../../api/outbox";
import { treatmentQuery } from "../../api/queries";
import type { Measure, TestFormView, VisualCheckIn } from "../../api/types";
import { type Kit, useKit } from "../../forms/kit";
import { personId } from "../../lib/person";
import { temperatureUnit, type Units } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";

export type Fields = Partial<Record<Measure, string>>;

export interface TestDraft {
  /** Ids made once, so that a resend after a lost answer is recognized. */
  testId: string;
  lookId: string;
  fields: Fields;
  clarity: VisualCheckIn["clarity"] | null;
  level: VisualCheckIn["level"] | null;
  odd: string[];
  note: string;
  at: string;
}

export function emptyDraft(fields: Fields = {}): TestDraft {
  return {
    testId: crypto.randomUUID(),
    lookId: crypto.randomUUID(),
    fields,
    clarity: null,
    level: null,
    odd: [],
    note: "",
    at: "",
  };
}

/** What is typed: a field that was shown and never touched holds nothing. */
function compact(fields: Partial<Record<string, string>>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([measure, text = ""]) => (text.trim() === "" ? [] : [[measure, text]])),
  );
}

interface ReadBy {
  poolId: string;
  kitKey: string;
  unit: "f" | "c";
}

function askServer(
  { poolId, kitKey, unit }: ReadBy,
  what: { line?: string; fields?: Record<string, string> },
): Promise<TestFormView> {
  return take(
    client.POST("/api/v1/pools/{pool_id}/slip/read", {
      params: { path: { pool_id: poolId } },
      body: { kit: kitKey, temperature_unit: unit, fields: {}, ...what },
    }),
  );
}

/** What the server makes of the fields as they are typed; only who calls this is drawn anew by a key. */
export function useReading(poolId: string, kitKey: string, units: Units): TestFormView | undefined {
  const fields = useWatch<TestDraft, "fields">({ name: "fields" });
  const typed = useDebounced(compact(fields), 200);
  const by = { poolId, kitKey, unit: temperatureUnit(units) };
  const read = useQuery({
    queryKey: ["slip", poolId, kitKey, by.unit, typed],
    queryFn: () => askServer(by, { fields: typed }),
    enabled: Object.keys(typed).length > 0,
    placeholderData: (before) => before,
    retry: false,
  });
  return read.data;
}

interface TestFormOptions {
  poolId: string;
  kitKey: string;
  units: Units;
  /** The entry that is corrected, if one is. */
  corrects: string | null;
  start: Fields;
  /** Whether all that was typed stands in the fields; says what is missing where not. */
  ready: () => boolean;
  /** `waits`: the server has not answered, and it is kept on this device. */
  onSaved: (waits: boolean) => void;
}

/** What is typed on the slip, what the server reads in it, and keeping it. */
export function useTestForm({ poolId, kitKey, units, corrects, start, ready, onSaved }: TestFormOptions) {
  const queries = useQueryClient();
  const kit: Kit<TestDraft> = useKit<TestDraft>({
    start: emptyDraft(start),
    draft: `${corrects ?? poolId}.slip`,
    send: save,
  });
  const unit = temperatureUnit(units);
  const at_pool = { path: { pool_id: poolId } };

  function testBody(draft: TestDraft) {
    return {
      id: draft.testId,
      at: draft.at === "" ? null : new Date(draft.at).toISOString(),
      person_id: personId(),
      fields: compact(draft.fields),
      kit: kitKey,
      temperature_unit: unit,
      note: draft.note,
    };
  }

  async function keepLook(draft: TestDraft): Promise<boolean> {
    if (draft.clarity === null && draft.level === null && draft.odd.length === 0) return true;
    const { at, person_id } = testBody(draft);
    const look = {
      id: draft.lookId,
      at,
      person_id,
      clarity: draft.clarity ?? "clear",
      level: draft.level ?? "normal",
      odd: draft.odd,
      note: "",
    };
    return (await postOrKeep("/api/v1/pools/{pool_id}/looks", at_pool, look, "A look")) !== SAVED;
  }

  /** True when the server has it, false when it waits on this device. */
  async function keepTest(draft: TestDraft): Promise<boolean> {
    const body = testBody(draft);
    if (corrects !== null) {
      await take(
        client.POST("/api/v1/entries/{entry_id}/correct-test", {
          params: { path: { entry_id: corrects } },
          body,
        }),
      );
    } else if (Object.keys(body.fields).length > 0 || draft.clarity === null) {
      return (await postOrKeep("/api/v1/pools/{pool_id}/tests", at_pool, body, "A test")) !== SAVED;
    }
    return true;
  }

  /** What was typed stays until all of it was kept. */
  async function save(draft: TestDraft): Promise<void> {
    if (!ready()) return;
    const tested = await keepTest(draft);
    const looked = await keepLook(draft);
    kit.forget();
    const waits = !tested || !looked;
    if (!waits) {
      // The sheet is asked for first: it is what one waits for. The rest is fetched by the screen that comes.
      await queries.cancelQueries({ queryKey: ["pool", poolId] });
      void queries.invalidateQueries({ queryKey: ["pool", poolId], refetchType: "none" });
      void queries.invalidateQueries({ queryKey: ["pools"] });
      void queries.prefetchQuery({ ...treatmentQuery(poolId, units), staleTime: 0 });
    }
    onSaved(waits);
  }

  return {
    kit,
    readLine: (line: string) => askServer({ poolId, kitKey, unit }, { line }),
  };
}
