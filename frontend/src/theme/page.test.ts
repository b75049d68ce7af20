import { expect, it } from "vitest";
import { pageStyles } from "../../vite.theme";
import { look, system } from "./system";

function written(): string {
  const { load } = pageStyles();
  if (typeof load !== "function") throw new Error("The plugin reads no file.");
  return String(Reflect.apply(load, undefined, ["/anywhere/src/theme/page.css"]));
}

it("writes every color of every light into the style sheet of the page", () => {
  const rules = written().replaceAll(/\s/g, "");
  for (const [name, { value }] of Object.entries(look.theme?.semanticTokens?.colors ?? {})) {
    const { base, _sun, _dusk } = value as unknown as Record<string, string>;
    for (const [where, color] of [
      [":where(:root,:host)", base],
      ["[data-mode=sun]", _sun],
      ["[data-mode=dusk]", _dusk],
    ]) {
      const own = [...rules.matchAll(/([^{};]+)\{([^{}]*)\}/g)].filter(([, who]) =>
        who?.startsWith(where ?? "?"),
      );
      expect(own.map(([, , all]) => all).join(";"), `${name} ${where}`).toContain(
        `--k-colors-${name}:${color};`,
      );
    }
  }
});

it("leaves nothing of it to the browser", () => {
  expect(system._global).toEqual([]);
  expect(written()).toMatch(/prefers-reduced-motion[^}]*transition:\s*none\s*!important/);
});
