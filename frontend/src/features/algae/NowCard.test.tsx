import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Rescue } from "../../api/types";
import { address, render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { NowCard } from "./NowCard";

const begun = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true#begun`);

const card = <NowCard seen={begun} poolId={SALT.id} units="us" zone="America/Chicago" filter="sand" />;

it("names what is due now, and leads to it", async () => {
  const { user } = render(card);
  await user.click(await screen.findByText("Look and test"));
  expect(address()).toBe(`/pools/${SALT.id}/test`);
});

it("goes on with a sheet that is under way", async () => {
  willAnswer(`/pools/${SALT.id}/sheet`, recordedAt(`/pools/${SALT.id}/sheet#started`));
  const { user } = render(card);
  expect(await screen.findByText("A plan is under way")).toBeTruthy();
  await user.click(screen.getByText("Go on with the plan"));
  expect(address()).toBe(`/pools/${SALT.id}/plan?plan=rescue`);
});

it("leads to this filter's cleaning", async () => {
  render(card);
  expect((await screen.findByText("Clean the filter")).getAttribute("href")).toContain("/care/do/backwash");
});
