import { ChakraProvider } from "@chakra-ui/react";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import type { Plugin } from "vite";
import { wholeSystem } from "./src/theme/page.ts";

const nothing = { value: wholeSystem, children: null };
const SHEET = "/src/theme/page.css";
const RULES = /<style[^>]*>(.*?)<\/style>/gs;

/** What holds for the whole page is written when the app is built: no browser works it out before its first frame. */
export function pageStyles(): Plugin {
  return {
    name: "kumpan-page-styles",
    enforce: "pre",
    load(id) {
      if (!id.endsWith(SHEET)) return null;
      const drawn = renderToStaticMarkup(createElement(ChakraProvider, nothing));
      const rules = [...drawn.matchAll(RULES)].map(([, text]) => text);
      if (rules.length === 0) throw new Error("Chakra wrote no styles of the page.");
      return rules.join("\n");
    },
  };
}
