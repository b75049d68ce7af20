import { useQuery } from "@tanstack/react-query";
import { authQuery } from "../api/accountQueries";
import type { Me } from "../api/types";

/** Who is signed in here; null for nobody, or while it is not known. */
export function useMe(): Me | null {
  return useQuery(authQuery()).data?.me ?? null;
}
