import { useQuery } from "@tanstack/react-query";
import { authQuery } from "../api/accountQueries";
import type { Me } from "../api/types";

/** Whether only reading is open here: a guest sees no button that would be refused. */
export function useReadsOnly(): boolean {
  return useMe()?.role === "guest";
}

/** Who is signed in here; null for nobody, or while it is not known. */
export function useMe(): Me | null {
  return useQuery(authQuery()).data?.me ?? null;
}
