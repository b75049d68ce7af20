import { QueryClient } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";

const asked: string[] = [];
vi.mock("./queries", () => {
  const one = (name: string) => (id?: string) => ({
    queryKey: [name, id ?? ""],
    queryFn: async () => {
      asked.push(`${name} ${id ?? ""}`.trim());
      return 1;
    },
  });
  const names = ["board", "choices", "lastValues", "plan", "pool", "today", "treatment"];
  return Object.fromEntries(names.map((name) => [`${name}Query`, one(name)]));
});

it("asks once for all that each stop needs", async () => {
  const { fetchForTheRound } = await import("./forTheRound");
  await fetchForTheRound(new QueryClient(), ["a", "b", "c", "d"], "us");
  expect(asked[0]).toBe("choices");
  for (const id of ["a", "d"])
    for (const name of ["pool", "board", "today", "treatment", "lastValues", "plan"])
      expect(asked.filter((one) => one === `${name} ${id}`)).toHaveLength(1);
});
