import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { postOrKeep, SAVED } from "../../api/outbox";
import { treatmentQuery } from "../../api/queries";
import type { Measure, TestFormView, VisualCheckIn } from "../../api/types";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";
import type { Units } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";
import { useDraft } from "../../lib/useDraft";

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

function compact(fields: Fields): Record<string, string> {
  return Object.fromEntries(Object.entries(fields).filter(([, text]) => text.trim() !== ""));
}

/** What is typed on the slip, what the server reads in it, and keeping it. */
export function useTestForm(
  poolId: string,
  kit: string,
  units: Units,
  corrects: string | null,
  start: Fields,
) {
  const queries = useQueryClient();
  const [draft, change, forget] = useDraft<TestDraft>(`${corrects ?? poolId}.slip`, emptyDraft(start));
  const [saving, setSaving] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const unit = units === "us" ? "f" : "c";
  const typed = useDebounced(compact(draft.fields), 200);

  const read = useQuery({
    queryKey: ["slip", poolId, kit, unit, typed],
    queryFn: () => askServer({ fields: typed }),
    enabled: Object.keys(typed).length > 0,
    placeholderData: (before) => before,
    retry: false,
  });

  function askServer(what: { line?: string; fields?: Record<string, string> }): Promise<TestFormView> {
    return take(
      client.POST("/api/v1/pools/{pool_id}/slip/read", {
        params: { path: { pool_id: poolId } },
        body: { kit, temperature_unit: unit, fields: {}, ...what },
      }),
    );
  }

  function testBody() {
    return {
      id: draft.testId,
      at: draft.at === "" ? null : new Date(draft.at).toISOString(),
      person_id: personId(),
      fields: compact(draft.fields),
      kit,
      temperature_unit: unit as "f" | "c",
      note: draft.note,
    };
  }

  async function keepLook(): Promise<boolean> {
    if (draft.clarity === null && draft.level === null && draft.odd.length === 0) return true;
    const { at, person_id } = testBody();
    const look = {
      id: draft.lookId,
      at,
      person_id,
      clarity: draft.clarity ?? "clear",
      level: draft.level ?? "normal",
      odd: draft.odd,
      note: "",
    };
    return (await postOrKeep(`/api/v1/pools/${poolId}/looks`, look, "A look")) !== SAVED;
  }

  /** True when the server has it, false when it waits on this device. */
  async function keepTest(): Promise<boolean> {
    const body = testBody();
    if (corrects !== null) {
      await take(
        client.POST("/api/v1/entries/{entry_id}/correct-test", {
          params: { path: { entry_id: corrects } },
          body,
        }),
      );
    } else if (Object.keys(body.fields).length > 0 || draft.clarity === null) {
      return (await postOrKeep(`/api/v1/pools/${poolId}/tests`, body, "A test")) !== SAVED;
    }
    return true;
  }

  /** True when all was kept. What was typed stays until then. */
  async function save(): Promise<boolean> {
    setSaving(true);
    setTrouble(null);
    try {
      const tested = await keepTest();
      const looked = await keepLook();
      forget();
      if (!tested || !looked) {
        notify("Kept on this device; it is sent when the server answers.");
        return true;
      }
      // The sheet is asked for first: it is what one waits for. The rest is fetched by the screen that comes.
      await queries.cancelQueries({ queryKey: ["pool", poolId] });
      void queries.invalidateQueries({ queryKey: ["pool", poolId], refetchType: "none" });
      void queries.invalidateQueries({ queryKey: ["pools"] });
      void queries.prefetchQuery({ ...treatmentQuery(poolId, units), staleTime: 0 });
      return true;
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
      return false;
    } finally {
      setSaving(false);
    }
  }

  return {
    draft,
    change,
    read: read.data,
    offline: read.isError,
    readLine: (line: string) => askServer({ line }),
    save,
    saving,
    trouble,
  };
}
