import { QueryObserver } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://kumpan" } });
const { newQueryClient } = await import("./queryClient");

const SHEET = ["pool", "p", "sheet", "us"];
const HEAD = ["pool", "p", "head"];

it("forgets what was changed while nobody looked at it: no sheet of before stands in for the new one", async () => {
  const client = newQueryClient();
  client.setQueryData(SHEET, "two cups");
  client.setQueryData(HEAD, "yes");
  client.setQueryData(["pool", "other", "sheet", "us"], "one cup");
  const screen = new QueryObserver(client, { queryKey: HEAD, queryFn: () => "no", staleTime: 10_000 });
  const leave = screen.subscribe(() => {});
  await client.invalidateQueries({ queryKey: ["pool", "p"] });
  expect(client.getQueryData(SHEET)).toBeUndefined();
  expect(client.getQueryData(HEAD)).toBe("no");
  expect(client.getQueryData(["pool", "other", "sheet", "us"])).toBe("one cup");
  leave();
});
