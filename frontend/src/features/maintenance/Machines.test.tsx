import { screen, waitFor, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { Machines } from "./Machines";

const recorded = recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`);
const robot = {
  machine_id: "m1",
  kind: "robot" as const,
  name: "Robot cleaner",
  label: "The blue one",
  since: "2025-05-01",
  note: "on the shelf behind the pump",
  parts: [{ entry_id: "p1", at: "2026-06-01T18:00:00Z", part: "Brush", note: "" }],
};
const view: EquipmentView = {
  ...recorded,
  kinds: [
    { kind: "robot", name: "Robot cleaner" },
    { kind: "cover", name: "Cover" },
  ],
  machines: [robot],
  parts: [{ entry_id: "p2", at: "2026-05-01T18:00:00Z", part: "Pump o-ring", note: "" }],
};
const common = { poolId: SALT.id, zone: "America/Chicago" };

it("lists what stands there with its parts, and takes it off", async () => {
  const { user } = render(<Machines view={view} {...common} />);
  const one = within(screen.getByRole("article", { name: "The blue one" }));
  expect(one.getByText(/Robot cleaner\. Since .*2025/)).toBeTruthy();
  expect(one.getByText(/Brush/)).toBeTruthy();
  expect(screen.getByText(/Pump o-ring/)).toBeTruthy();
  await user.click(one.getByRole("button", { name: "The blue one is gone" }));
  await waitFor(() => expect(sentTo("/machines")).toHaveLength(1));
  expect(sentTo("/machines")[0]).toMatchObject({ machine_id: "m1", kind: "robot", gone: true });
});

it("adds a machine, and notes a part of one", async () => {
  const { user } = render(<Machines view={view} {...common} />);
  await user.selectOptions(screen.getByLabelText("Machine"), "cover");
  await user.click(screen.getByText("Add it"));
  expect(await screen.findByText("Cover is on the list.")).toBeTruthy();
  expect(sentTo("/machines")[0]).toMatchObject({ kind: "cover", since: null, gone: false });
  await user.click(screen.getByRole("button", { name: "Part replaced: The blue one" }));
  await user.type(screen.getByLabelText("Which part"), "Wheel");
  await user.click(screen.getByText("Note it"));
  await waitFor(() => expect(sentTo("/parts")).toMatchObject([{ part: "Wheel", machine_id: "m1" }]));
});

it("keeps what was typed where it is refused", async () => {
  willRefuse("/machines", "Choose what it is.", "kind", 422);
  const { user } = render(<Machines view={view} {...common} />);
  await user.type(screen.getByLabelText("Your name for it"), "Old one");
  await user.click(screen.getByText("Add it"));
  expect(await screen.findByText("Choose what it is.")).toBeTruthy();
  expect((screen.getByLabelText("Your name for it") as HTMLInputElement).value).toBe("Old one");
});
