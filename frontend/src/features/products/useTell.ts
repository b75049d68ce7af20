import { useQueryClient } from "@tanstack/react-query";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";

/** Tell the shelf something; the plans are reckoned anew with it. */
export function useTell() {
  const queries = useQueryClient();
  return async (told: Promise<unknown>, said: string) => {
    await told;
    notify(said); // at once: what to buy is reckoned for a while, and a later word must not be covered by this one
    await queries.invalidateQueries({ queryKey: ["shelf"] });
    await queries.invalidateQueries({ queryKey: ["pool"] });
  };
}

export const stamp = () => ({ id: crypto.randomUUID(), at: null, person_id: personId() });
