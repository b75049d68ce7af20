import remarkParse from "remark-parse";
import remarkRehype from "remark-rehype";
import { unified } from "unified";
import type { Plugin } from "vite";

const ASKED = "?guide";

/** A page of docs/guide is read when the app is built: the browser gets its tree, and no reader of Markdown. */
export function guide(): Plugin {
  const reader = unified().use(remarkParse).use(remarkRehype);
  return {
    name: "kumpan-guide",
    enforce: "pre",
    async load(id) {
      if (!id.endsWith(ASKED)) return null;
      const path = id.slice(0, -ASKED.length);
      this.addWatchFile(path);
      const text = await this.fs.readFile(path, { encoding: "utf8" });
      const title = text.split("\n", 1)[0]?.replace(/^# /, "") ?? "";
      const tree = await reader.run(reader.parse(text.slice(text.indexOf("\n") + 1)));
      const plain = JSON.stringify({ title, tree }, (key, value) => (key === "position" ? undefined : value));
      return `export default ${plain};`;
    },
  };
}
