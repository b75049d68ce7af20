import { screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { Visit, VisitLine } from "../../api/visit";
import { visitStore } from "../../lib/visit";
import { address, render, SALT } from "../../testing/render";
import { answering, heldBack, isDown, sentTo, willAnswer } from "../../testing/server";
import { VisitPage } from "./VisitPage";

const line = (key: string, group: VisitLine["group"], more: Partial<VisitLine> = {}): VisitLine => ({
  key,
  group,
  title: key.charAt(0).toUpperCase() + key.slice(1),
  detail: "",
  usual: true,
  procedure: null,
  station: null,
  why: "",
  mark: "open",
  at: null,
  ...more,
});
const LINES = [
  line("look", "look", { station: "slip" }),
  line("test", "test", { usual: false, station: "slip" }),
  line("baskets", "equipment", { procedure: "baskets" }),
  line("equipment", "equipment"),
  line("skim", "cleaning"),
  line("brush", "cleaning"),
  line("chemicals", "chemicals", { usual: false, station: "sheet" }),
];
const visit = (more: Partial<Visit> = {}): Visit => ({
  entry_id: null,
  begun_at: null,
  kind: "hour",
  lines: LINES,
  tested: false,
  zone: "America/Chicago",
  ...more,
});
const GOING = { entry_id: "v", begun_at: "2026-07-01T17:00:00Z" };
const path = `/pools/${SALT.id}/visit`;
const show = (seen: Visit) => {
  willAnswer(path, seen);
  return render(<VisitPage />, { at: path, route: "/pools/:poolId/visit" });
};
beforeEach(() => visitStore.set(""));

it("says what stands on it before it is begun, and begins it", async () => {
  const { user } = show(visit());
  await screen.findByText(/7 lines, chemicals last/);
  expect(screen.queryByText("All as usual")).toBeNull();
  await user.click(screen.getByText("Begin"));
  await waitFor(() => expect(sentTo("/visit")).toMatchObject([{ kind: "hour" }]));
});

it("says where a list of the season is made, where none goes on", async () => {
  show({ ...visit(), kind: "season", lines: [] });
  await screen.findByText(/made under Season/);
});

it("ticks a group in one tap, and each line for itself", async () => {
  const { user } = show(visit(GOING));
  const cleaning = await screen.findByRole("region", { name: "Cleaning" });
  await user.click(within(cleaning).getByText("All as usual"));
  await waitFor(() => expect(sentTo("/visit/usual")).toMatchObject([{ keys: ["skim", "brush"] }]));
  await user.click(screen.getByLabelText("Baskets: done"));
  await waitFor(() => expect(sentTo("/visit/usual")[1]).toMatchObject({ keys: ["baskets"] }));
  expect(visitStore.get()).toBe(SALT.id);
});

it("takes the next tick while the one before is on its way, and shows both at once", async () => {
  const { user } = show(visit(GOING));
  const cleaning = await screen.findByRole("region", { name: "Cleaning" });
  const arrive = heldBack("/visit/usual");
  await user.click(within(cleaning).getByText("All as usual"));
  await user.click(screen.getByLabelText("Baskets: done"));
  await waitFor(() =>
    expect(sentTo("/visit/usual").map(({ keys }) => keys)).toEqual([["skim", "brush"], ["baskets"]]),
  );
  expect(screen.queryByLabelText("Skim: done")).toBeNull();
  expect(screen.getByText(/^Still open: look, test, equipment, chemicals/)).toBeTruthy();
  arrive();
  await screen.findByText("As usual: noted.");
});

it("opens chemicals when the test is in", async () => {
  const { unmount } = show(visit(GOING));
  const locked = await screen.findByRole("region", { name: "Chemicals" });
  expect(within(locked).getByText(/They open when the test/)).toBeTruthy();
  expect(within(locked).queryByText("To the plan")).toBeNull();
  unmount();
  show(visit({ ...GOING, tested: true }));
  const open = await screen.findByRole("region", { name: "Chemicals" });
  expect(within(open).getByText("To the plan")).toBeTruthy();
});

it("leaves a line out with its reason", async () => {
  const { user } = show(visit(GOING));
  await user.click(await screen.findByLabelText("Skim: leave it out"));
  await user.type(screen.getByLabelText("Why it is left out this time"), "covered");
  await user.click(screen.getByText("Leave it out"));
  await waitFor(() =>
    expect(sentTo("/care/put-off")).toMatchObject([{ task: "skim", until: null, reason: "covered" }]),
  );
});

it("goes on without a network: what is ticked waits on the device", async () => {
  const { user } = show(visit(GOING));
  const cleaning = await screen.findByRole("region", { name: "Cleaning" });
  isDown();
  await user.click(within(cleaning).getByText("All as usual"));
  expect((await screen.findAllByText(/waits to be sent/)).length).toBe(2);
  answering();
});

it("says what is open still, ends it and leads to the report", async () => {
  const { user } = show(visit(GOING));
  expect(await screen.findByText(/Still open: look, test, baskets/)).toBeTruthy();
  await user.type(screen.getByLabelText(/A note to the owner/), "Gate was open.");
  await user.click(screen.getByText("End the visit"));
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}/report`));
  expect(sentTo("/visits")).toMatchObject([{ note: "Gate was open." }]);
  expect(visitStore.get()).toBe("");
});
