import type { ImportChoices, ImportedFile, ImportView } from "../../api/files";

/** A small notebook as the server reads it. */
export const FILE: ImportedFile = {
  id: "6a1f0c5e-0000-4000-8000-000000000001",
  name: "book.csv",
  created_at: "2026-07-01T17:00:00Z",
  state: "open",
  done: 0,
  total: 0,
  trouble: "",
};
const plain = {
  measure: null,
  chemical: "",
  strength_percent: null,
  unit: "",
  decimal_comma: false,
} as const;
export const VIEW: ImportView = {
  file: FILE,
  as_before: false,
  tabs: [""],
  header: ["Date", "pH", "Bleach (gal)"],
  sample: [["6/3/26", "7,4", "1"]],
  rows: 3,
  manner: {
    kind: "notebook",
    tab: 0,
    header_row: 0,
    pool_id: null,
    kit: "drops",
    metric: false,
    columns: [
      { ...plain, role: "date", dates: "month_first" },
      { ...plain, role: "measure", measure: "ph", dates: "year_first" },
      { ...plain, role: "added", chemical: "borax", unit: "gal", dates: "year_first" },
    ],
  },
};
const named = (keys: string) => keys.split(" ").map((key) => ({ key, name: key }));
export const CHOICES: ImportChoices = {
  roles: {
    notebook: named("skip date measure added note"),
    stock: named("skip product"),
    pools: named("skip pool"),
    stops: named("skip pool weekday"),
  },
  measures: named("ph free_chlorine"),
  chemicals: named("borax boric_acid"),
  units: named("ppm dh"),
};
