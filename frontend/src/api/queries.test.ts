import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://kumpan" } });
const { interviewQuery, reportQuery, rescueQuery, roundQuery, seasonPlanQuery } = await import("./queries");

const NEVER = () => new Promise<never>(() => {});
const AS_SEEN = { severity: null, byRatio: false };
const OPENING = {
  which: "opening",
  day: "2026-04-20",
  kind: "in_ground",
  cover: "none",
  winter: "frost",
  skimmer_plate: false,
} as const;

it.each([
  [
    "rescue",
    (id: string) => rescueQuery(id, AS_SEEN, "us"),
    (id: string) => rescueQuery(id, AS_SEEN, "metric"),
  ],
  [
    "season's list",
    (id: string) => seasonPlanQuery(id, OPENING, "us"),
    (id: string) => seasonPlanQuery(id, OPENING, "metric"),
  ],
  ["interview", (id: string) => interviewQuery(id, []), (id: string) => interviewQuery(id, ["yes"])],
  ["round", (id: string) => roundQuery(id, 0, "us"), (id: string) => roundQuery(id, 1, "us")],
  [
    "report",
    (id: string) => reportQuery(id, null, "us"),
    (id: string) => reportQuery(id, "2026-07-01", "us"),
  ],
])("never shows another one's %s while the own is on its way", (_what, asked, askedAnew) => {
  const client = new QueryClient();
  const options = (made: object) =>
    ({ ...made, queryFn: NEVER }) as unknown as { queryKey: readonly unknown[] };
  client.setQueryData(asked("one").queryKey as readonly unknown[], { of: "one" });
  const screen = new QueryObserver(client, options(asked("one")));
  const leave = screen.subscribe(() => {});
  screen.setOptions(options(askedAnew("one")));
  expect(screen.getCurrentResult().data).toEqual({ of: "one" });
  screen.setOptions(options(asked("other")));
  expect(screen.getCurrentResult().data).toBeUndefined();
  leave();
});
