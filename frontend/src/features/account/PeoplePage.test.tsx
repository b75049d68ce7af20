import { screen, waitFor, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Member, PoolPage } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willAnswer, willReply } from "../../testing/server";
import { PeoplePage } from "./PeoplePage";

const members = recordedAt<Member[]>("/members");
const technician = members.find(({ role }) => role === "technician");
const [pool] = recordedAt<PoolPage>("/pools?sort=name&limit=200").pools;
const name = technician?.name ?? "";

it("gives roles and pools, and makes an invitation to pass on", async () => {
  const { user } = render(<PeoplePage />);
  const card = within(await screen.findByLabelText(name));
  await user.click(await card.findByText(pool?.settings.name ?? ""));
  await waitFor(() =>
    expect(sentTo(`/members/${technician?.id}/role`)).toEqual([{ role: "technician", pools: [pool?.id] }]),
  );
  await user.selectOptions(card.getByLabelText("Role"), "owner");
  await waitFor(() => expect(sentTo(`/members/${technician?.id}/role`)[1]).toMatchObject({ role: "owner" }));
  willReply("/invitation", { id: null, path: "/join/s3cret" });
  await user.click(card.getByText("Make an invitation"));
  expect((await card.findByTestId("invitation")).textContent).toBe(`${window.location.origin}/join/s3cret`);
});

it("asks once more before somebody leaves, and can erase the name afterwards", async () => {
  const { user } = render(<PeoplePage />);
  const card = within(await screen.findByLabelText(name));
  await user.click(card.getByText(`${name} leaves …`));
  await user.click(card.getByText("No"));
  expect(sentTo("/end")).toEqual([]);
  await user.click(card.getByText(`${name} leaves …`));
  willAnswer("/members", [{ ...technician, ended_at: "2026-06-01T12:00:00Z" }]);
  await user.click(card.getByText(`Yes, ${name} leaves`));
  await waitFor(() => expect(sentTo("/end")).toEqual([{ erase: false }]));
  await user.click(await screen.findByText("Erase the name"));
  await waitFor(() => expect(sentTo("/end")[1]).toEqual({ erase: true }));
});

it("adds somebody, and shows who did what", async () => {
  const { user } = render(<PeoplePage />);
  await user.type(await screen.findByLabelText("Name, as the log shall show it"), "Ada Holm");
  await user.click(screen.getByText("Add"));
  await waitFor(() => expect(sentTo("/people")).toMatchObject([{ name: "Ada Holm" }]));
  expect(await screen.findAllByText(/signed in/)).not.toHaveLength(0);
  expect(screen.getByText("All of it as CSV").getAttribute("href")).toBe("/api/v1/audit.csv");
});
