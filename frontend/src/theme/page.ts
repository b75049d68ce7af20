import { createSystem, defaultBaseConfig, defineGlobalStyles } from "@chakra-ui/react";
import { look } from "./system.ts";

const page = defineGlobalStyles({
  "html, body": {
    bg: "paper",
    color: "ink",
    fontFamily: "body",
    fontSize: "body",
    lineHeight: "1.4",
    fontVariantNumeric: "tabular-nums",
  },
  "*::placeholder": { color: "soft", opacity: "0.8" },
  "*::selection": { bg: "band" },
  // What is focused by keys never lies under the bar at the foot of a phone (WCAG 2.4.11).
  html: {
    scrollPaddingBottom: { base: "calc(var(--foot, 65px) + 5.5rem)", lg: "1rem" },
    "--global-color-border": "colors.hairline",
    "--global-font-mono": "fonts.mono",
  },
  // Behind what lies over a whole phone nothing scrolls.
  "html:has(dialog:modal)": { overflow: { base: "hidden", lg: "visible" } },
  "[data-mode=dusk]": { colorScheme: "dark" },
  "*:focus-visible": { outline: "3px solid {colors.rope}", outlineOffset: "2px" },
  "*, *::before, *::after": {
    _motionReduce: { transition: "none !important", animation: "none !important" },
  },
  // Where a window is hardly higher than its bars, as at 400 percent, they scroll away with the rest.
  "[data-foot], [data-main-action]": {
    "@media (max-height: 420px)": { position: "static !important" },
  },
  // A whole run sheet on one page: nine points are read well on paper.
  "@page": { margin: "10mm" },
  body: { _print: { zoom: "var(--print-zoom, 0.75)" } },
  "[data-noprint]": { _print: { display: "none !important" } },
  // A page that prints one of its lists alone says so on the body while it does.
  "body[data-print=list] [data-print-skip=list]": { _print: { display: "none !important" } },
});

/** With what holds for the whole page: the colors of each light, and these rules. Read when the app is built. */
export const wholeSystem = createSystem(defaultBaseConfig, look, { preflight: true, globalCss: page });
