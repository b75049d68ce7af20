import { chakra } from "@chakra-ui/react";
import { NavLink } from "react-router";

/** A link of the menu: 44 px high, underlined where one is. */
export const TextLink = chakra(NavLink, {
  base: {
    display: "inline-flex",
    alignItems: "center",
    minH: "44px",
    color: "ink",
    borderBottom: "3px solid transparent",
    "&.active": { borderColor: "accent", fontWeight: "650" },
  },
});

/** A link inside text or standing by itself. */
export const PlainLink = chakra(NavLink, {
  base: { color: "rope", fontWeight: "600", textDecoration: "underline", textUnderlineOffset: "3px" },
});
