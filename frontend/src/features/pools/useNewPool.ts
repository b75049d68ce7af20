import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, Trouble, take } from "../../api/client";
import type { Choices } from "../../api/types";
import { notify } from "../../components/notice";
import { type Kit, useKit } from "../../forms/kit";
import { keepDraft, savedDraft } from "../../lib/draft";
import { personId } from "../../lib/person";
import type { Units } from "../../lib/units";
import { emptyForm, equipmentOf, type PoolForm, settingsOf, typedBasin } from "./form";

interface Ids {
  pool: { id: string; entry_ids: [string, string, string] };
  /** By chemical, of the products that go on the shelf with the pool. */
  products: Record<string, string>;
}

function newIds(): Ids {
  const entry_ids: Ids["pool"]["entry_ids"] = [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()];
  return { pool: { id: crypto.randomUUID(), entry_ids }, products: {} };
}

const IDS = "new-pool-made";

/** Ids made once for a pool that is being set up and its products, so that a resend after a lost answer is recognized. */
function keptIds(): Ids {
  const ids = { ...newIds(), ...savedDraft<Ids>(IDS) };
  keepDraft(IDS, ids);
  return ids;
}

/** The basin as it is sent. Throws Trouble where the size is not complete. */
export function requireBasin(form: PoolForm, units: Units) {
  const basin = typedBasin(form, units);
  if (basin === null)
    throw new Trouble(
      "The pool's dimensions or its volume are still missing; everything is dosed by volume.",
      "basin",
      0,
    );
  return basin;
}

/** The form of a new pool, kept on this device until it is set up; then the first test is opened. */
export function useNewPool(units: Units, choices: Choices | undefined): Kit<PoolForm> {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [made] = useState(keptIds);
  const kit: Kit<PoolForm> = useKit<PoolForm>({ start: emptyForm(), draft: "new-pool", send: save });

  async function save(form: PoolForm) {
    const basin = requireBasin(form, units);
    const head = await take(
      client.POST("/api/v1/pools", {
        body: {
          ...made.pool,
          at: null,
          person_id: personId(),
          settings: settingsOf(form),
          equipment: equipmentOf(form),
          basin,
        },
      }),
    );
    for (const chemical of form.onShelf) {
      const usual = choices?.chemicals.find(({ key }) => key === chemical);
      if (usual === undefined) continue;
      made.products[chemical] ??= crypto.randomUUID();
      keepDraft(IDS, made);
      await take(client.POST("/api/v1/shelf", { body: onShelf(made.products[chemical], usual) }));
    }
    kit.forget();
    keepDraft(IDS, null);
    await queries.invalidateQueries({ queryKey: ["pools"] });
    await queries.invalidateQueries({ queryKey: ["shelf"] });
    notify(`${head.settings.name} is set up. Test the water next.`);
    void navigate(`/pools/${head.id}/test`);
  }

  return kit;
}

function onShelf(id: string, { key, usual_strength_percent }: Choices["chemicals"][number]) {
  return {
    id,
    name: "",
    chemical: key,
    strength_percent: usual_strength_percent,
    package: "",
    label_dose: null,
  };
}
