import { Flex } from "@chakra-ui/react";
import { NavLink } from "react-router";
import { openFinder } from "../lib/find";
import { useMe } from "../lib/me";
import { Icon } from "./icons";

const TARGET = {
  w: "44px",
  h: "44px",
  align: "center",
  justify: "center",
  cursor: "pointer",
} as const;

/** What is one tap away on every page of a phone: find, and the emergency page. */
export function TopTools() {
  const me = useMe();
  return (
    <Flex display={{ base: "flex", lg: "none" }} flexShrink="0" data-noprint>
      {me !== null && me.role !== "guest" && (
        <Flex asChild {...TARGET}>
          <button type="button" aria-label="Find" onClick={openFinder}>
            <Icon name="find" />
          </button>
        </Flex>
      )}
      <Flex asChild {...TARGET} color="accent">
        <NavLink to="/emergency" aria-label="Emergency">
          <Icon name="emergency" />
        </NavLink>
      </Flex>
    </Flex>
  );
}
