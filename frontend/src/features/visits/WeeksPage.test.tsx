import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { FairView, FirmView } from "../../api/firm";
import { render } from "../../testing/render";
import { sentTo, willAnswer, willRefuse } from "../../testing/server";
import { WeeksPage } from "./WeeksPage";

const stop = { minutes: 20, why: "weekly" as const, extra: [], entry: null, from_day: null };
const day = { stop_min: 46, drive_min: 14, km: 9.6, too_long: false };
const view: FirmView = {
  first: "2026-11-30",
  today: "2026-11-30",
  technicians: [
    { id: "anna", name: "Anna" },
    { id: "bo", name: "Bo" },
  ],
  days: [
    {
      ...day,
      day: "2026-11-30",
      technician: "anna",
      stops: [
        { ...stop, pool: "a" },
        { ...stop, pool: "b", why: "once", extra: ["New pump"], entry: "entry-b", minutes: 80 },
      ],
    },
    { ...day, day: "2026-12-01", technician: "bo", stops: [{ ...stop, pool: "c" }], too_long: true },
  ],
  unplaced: [{ pool: "d", day: "2026-12-02", reason: "Nobody drives within 3 days of it.", entry: null }],
  pools: ["a", "b", "c", "d"].map((id) => ({ id, name: `Pool ${id}`, on_plan: id !== "d", returns: false })),
  absences: [
    { id: "gone", body: { technician_id: "bo", first: "2026-12-02", last: "2026-12-04", note: "holiday" } },
  ],
};
const fair: FairView = {
  before: { km: 100, longest_min: 500, shortest_min: 60 },
  after: { km: 80, longest_min: 300, shortest_min: 280 },
  rounds: [{ technician: "anna", name: "Anna", weekday: 0, pools: ["Pool a", "Pool c"] }],
};

beforeEach(() => {
  willAnswer("/rounds/weeks?weeks=1", view);
  willAnswer("/rounds/fair", fair);
});

it("lays out the week with what differs, what is too long and what found no day", async () => {
  render(<WeeksPage />);
  expect(await screen.findByText("3 stops of 2 technicians.", { exact: false })).toBeTruthy();
  expect(screen.getByText("1 h 20 min · once, New pump")).toBeTruthy();
  expect(screen.getByText(/too long/)).toBeTruthy();
  expect(screen.getByText("Pool d, Wed, Dec 2: Nobody drives within 3 days of it.")).toBeTruthy();
  expect(screen.getByText("Bo, Wed, Dec 2 to Fri, Dec 4: holiday")).toBeTruthy();
});

it("moves a stop by keys, and takes back what was planned once", async () => {
  const { user } = render(<WeeksPage />);
  await user.click(await screen.findByRole("button", { name: "Move Pool a" }));
  await user.selectOptions(screen.getByLabelText("Pool a to"), "Tue, Dec 1, Bo");
  await waitFor(() => expect(sentTo("/rounds/moves")).toHaveLength(1));
  expect(sentTo("/rounds/moves")[0]).toMatchObject({
    pool_id: "a",
    from_day: "2026-11-30",
    to_day: "2026-12-01",
    technician_id: "bo",
  });
  expect(await screen.findByText("Pool a: Tue, Dec 1, Bo.")).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "Take back: Pool b" }));
  await waitFor(() => expect(sentTo("/entries/entry-b/void")).toHaveLength(1));
});

it("moves a stop by dragging it onto another day", async () => {
  render(<WeeksPage />);
  const link = await screen.findByRole("link", { name: "Pool a" });
  const held = new Map<string, string>();
  const dataTransfer = {
    types: ["text/kumpan-stop"],
    setData: (kind: string, text: string) => held.set(kind, text),
    getData: (kind: string) => held.get(kind) ?? "",
  };
  fireEvent.dragStart(link.closest("li") as HTMLElement, { dataTransfer });
  const target = screen.getByRole("link", { name: "Pool c" }).closest("ol")?.parentElement as HTMLElement;
  fireEvent.dragOver(target, { dataTransfer });
  fireEvent.drop(target, { dataTransfer });
  await waitFor(() => expect(sentTo("/rounds/moves")).toHaveLength(1));
  expect(sentTo("/rounds/moves")[0]).toMatchObject({
    pool_id: "a",
    to_day: "2026-12-01",
    technician_id: "bo",
  });
});

it("says why a move was refused", async () => {
  willRefuse(
    "/rounds/moves",
    "This pool is not on that day's round any more; reload the plan.",
    "from_day",
    422,
  );
  const { user } = render(<WeeksPage />);
  await user.click(await screen.findByRole("button", { name: "Move Pool a" }));
  await user.selectOptions(screen.getByLabelText("Pool a to"), "Tue, Dec 1, Bo");
  expect(await screen.findByText(/reload the plan/)).toBeTruthy();
});

it("plans without somebody, and plans work once", async () => {
  const { user } = render(<WeeksPage />);
  const away = within(await screen.findByLabelText("Somebody is away"));
  await user.selectOptions(away.getByLabelText("Who"), "Anna");
  await user.click(away.getByText("Plan without"));
  await waitFor(() => expect(sentTo("/rounds/absences")).toHaveLength(1));
  expect(sentTo("/rounds/absences")[0]).toMatchObject({ technician_id: "anna", first: "2026-11-30" });
  const once = within(screen.getByLabelText("Work once"));
  await user.selectOptions(once.getByLabelText("Pool"), "Pool d");
  await user.type(once.getByLabelText("What"), "New pump");
  await user.click(once.getByText("Plan it"));
  await waitFor(() => expect(sentTo("/rounds/once")).toHaveLength(1));
  expect(sentTo("/rounds/once")[0]).toMatchObject({ pool_id: "d", technician_id: null, minutes: 30 });
});

it("suggests fairer days and takes them when asked", async () => {
  const { user } = render(<WeeksPage />);
  await user.click(await screen.findByText("Suggest"));
  const table = await screen.findByLabelText("Now and as suggested");
  expect(table.textContent).toContain("8 h 20 min");
  expect(screen.getByText("Pool a, Pool c")).toBeTruthy();
  await user.click(screen.getByText("Take these days"));
  await waitFor(() => expect(sentTo("/rounds/fair")).toHaveLength(1));
});
