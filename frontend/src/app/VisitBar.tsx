import { Box } from "@chakra-ui/react";
import { useLocation } from "react-router";
import { PlainLink } from "../components/TextLink";
import { useStore } from "../lib/store";
import { visitStore } from "../lib/visit";

/** While a visit goes on, one tap leads back to its list from every page of the pool. */
export function VisitBar() {
  const poolId = useStore(visitStore);
  const { pathname } = useLocation();
  const visit = `/pools/${poolId}/visit`;
  if (poolId === "" || !pathname.startsWith(`/pools/${poolId}`) || pathname === visit) return null;
  return (
    <Box
      px={{ base: "4", md: "7" }}
      py="1"
      bg="paper"
      borderTop="1px solid"
      borderColor="hairline"
      data-noprint
    >
      <PlainLink to={visit} display="inline-flex" alignItems="center" minH="44px">
        Back to the visit
      </PlainLink>
    </Box>
  );
}
