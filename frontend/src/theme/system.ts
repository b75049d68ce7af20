import { createSystem, defaultBaseConfig, defineConfig } from "@chakra-ui/react";
import { recipes } from "./recipes.ts";
import { scale } from "./scale.ts";

// Not Chakra's own theme: its palettes are half a thousand variables that no screen names, set before the first one.
// The only place for colors: paper (default), sun (most contrast), dusk (dark).
export const look = defineConfig({
  cssVarsPrefix: "k",
  conditions: { sun: "[data-mode=sun] &", dusk: "[data-mode=dusk] &" },
  theme: {
    breakpoints: { sm: "480px", md: "768px", lg: "1024px", xl: "1280px" },
    recipes,
    tokens: {
      spacing: scale,
      sizes: scale,
      radii: { full: { value: "9999px" } },
      colors: {
        white: { value: "#ffffff" },
        black: { value: "#000000" },
        shade: { value: "rgba(0, 0, 0, 0.64)" },
      },
      fonts: {
        mono: { value: "ui-monospace, monospace" },
        body: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        heading: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
      },
      fontSizes: {
        note: { value: "0.875rem" },
        body: { value: "1rem" },
        lead: { value: "1.125rem" },
        title: { value: "1.5rem" },
        figure: { value: "1.375rem" },
        amount: { value: "3.25rem" },
      },
    },
    semanticTokens: {
      colors: {
        paper: { value: { base: "#f7f4ee", _sun: "#ffffff", _dusk: "#0f1a1f" } },
        card: { value: { base: "#fffdf8", _sun: "#ffffff", _dusk: "#16242a" } },
        ink: { value: { base: "#14242c", _sun: "#000000", _dusk: "#eef3f0" } },
        soft: { value: { base: "#56676f", _sun: "#26343a", _dusk: "#a9bcc2" } },
        hairline: { value: { base: "#ddd6c8", _sun: "#5c6b72", _dusk: "#2c3f47" } },
        control: { value: { base: "#7d8a8f", _sun: "#000000", _dusk: "#7f969e" } },
        band: { value: { base: "#dfecec", _sun: "#d2ebee", _dusk: "#1d3a44" } },
        rope: { value: { base: "#2c6273", _sun: "#00394d", _dusk: "#7fb6c6" } },
        accent: { value: { base: "#c2410c", _sun: "#9c2a00", _dusk: "#ff9a5c" } },
      },
    },
  },
});

/** Without what holds for the whole page: that is in the page's own style sheet, see page.ts. */
export const system = { ...createSystem(defaultBaseConfig, look), _global: [] };
