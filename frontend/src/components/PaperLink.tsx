import { Link } from "@chakra-ui/react";
import { useStore } from "../lib/store";
import { unitsStore } from "../lib/units";

interface PaperLinkProps {
  poolId: string;
  kind: "visit" | "season" | "plan" | "procedure" | "record" | "water-log";
  /** What else the paper is asked by: a day, a procedure, a list. */
  of?: Record<string, string>;
  children: string;
}

/** A paper as PDF, to be read, printed or passed on. */
export function PaperLink({ poolId, kind, of = {}, children }: PaperLinkProps) {
  const metric = useStore(unitsStore) === "metric";
  const query = new URLSearchParams({ ...of, ...(metric ? { metric: "true" } : {}) }).toString();
  return (
    <Link
      href={`/api/v1/pools/${poolId}/papers/${kind}.pdf${query === "" ? "" : `?${query}`}`}
      target="_blank"
      rel="noreferrer"
      color="rope"
      fontWeight="600"
      textDecoration="underline"
      minH="44px"
      display="inline-flex"
      alignItems="center"
      data-noprint
    >
      {children}
    </Link>
  );
}
