import { defineRecipe } from "@chakra-ui/react";

/** What buttons, headings and links have in common; focus is shown by the whole app's one ring. */
export const recipes = {
  button: defineRecipe({
    base: {
      display: "inline-flex",
      alignItems: "center",
      justifyContent: "center",
      gap: "2",
      minW: "10",
      h: "10",
      flexShrink: "0",
      lineHeight: "1.25rem",
      whiteSpace: "nowrap",
      userSelect: "none",
      cursor: "pointer",
      _disabled: { opacity: "0.5", cursor: "not-allowed" },
    },
  }),
  heading: defineRecipe({ base: { fontSize: "1.25rem", lineHeight: "1.875rem", fontWeight: "600" } }),
  link: defineRecipe({
    base: {
      display: "inline-flex",
      alignItems: "center",
      gap: "1.5",
      cursor: "pointer",
      _hover: { textDecoration: "underline", textUnderlineOffset: "3px" },
    },
  }),
};
