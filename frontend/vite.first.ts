import type { Plugin, Rolldown } from "vite";

const PROGRAM = "app/start.tsx";
const LETTERS = /hyperlegible-next-latin-wght-normal.*\.woff2$/;

/** The page names what it draws with, the program's script and the letters, beside the small script that asks. */
export function drawnAtOnce(): Plugin {
  return {
    name: "kumpan-drawn-at-once",
    apply: "build",
    transformIndexHtml: {
      order: "post",
      handler(html, { bundle = {} }) {
        const made = Object.values(bundle);
        const program = made.find(
          (one): one is Rolldown.OutputChunk =>
            one.type === "chunk" && one.moduleIds.some((id) => id.endsWith(PROGRAM)),
        );
        const letters = made.find(({ fileName }) => LETTERS.test(fileName));
        if (program === undefined || letters === undefined)
          throw new Error(`${PROGRAM} or its font is missing.`);
        const scripts = [program.fileName, ...program.imports].filter((name) => !html.includes(name));
        return [
          ...scripts.map((name) => link({ rel: "modulepreload", href: `/${name}` })),
          link({ rel: "preload", as: "font", type: "font/woff2", href: `/${letters.fileName}` }),
        ];
      },
    },
  };
}

const link = (attrs: Record<string, string>) => ({
  tag: "link",
  attrs: { crossorigin: true, ...attrs },
  injectTo: "head" as const,
});
