import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render, SALT } from "../../testing/render";
import { sent, sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { GuidedPage } from "./GuidedPage";

const AT = { at: "/pools/new", route: "/pools/new" };

it("five questions, four fields: a pool by its kind and dimensions, then the test", async () => {
  willAnswer("/shelf", []);
  const { user } = render(<GuidedPage />, AT);
  await user.click(await screen.findByText("In-ground plaster, salt cell"));
  expect(address()).toBe("/pools/new?at=size");
  expect(screen.getByText(/Taken as usual until you say otherwise: plaster, salt cell/)).toBeTruthy();
  await user.click(screen.getByText("Next"));
  expect(screen.getByText(/dimensions or its volume are still missing/)).toBeTruthy();
  await user.type(screen.getByLabelText("Length, ft"), "32");
  await user.type(screen.getByLabelText("Width, ft"), "16");
  await user.type(screen.getByLabelText("Shallow end, ft"), "3");
  await user.type(screen.getByLabelText("Deep end, ft"), "8{Enter}");
  await waitFor(() => expect(address()).toBe("/pools/new?at=place"));
  await user.click(screen.getByText("Next"));
  await user.click(screen.getByText("Test strips"));
  await user.click(screen.getByText("Next"));
  await user.click(screen.getByText("Liquid chlorine"));
  willReply("/pools", SALT);
  await user.click(screen.getByText("Set up, then test the water"));
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}/test`));
  expect(sentTo("/pools")[0]).toMatchObject({
    settings: { name: "Pool 6", kit: "strips" },
    equipment: { chlorination: "salt_cell", surface: "plaster" },
    basin: { parts: [{ length: "32", width: "16" }] },
  });
  expect(sentTo("/shelf")).toMatchObject([{ chemical: "sodium_hypochlorite", strength_percent: 10 }]);
});

it("a product whose answer was lost is sent again as the same one", async () => {
  willAnswer("/shelf", []);
  const { user } = render(<GuidedPage />, AT);
  await user.click(await screen.findByText("Indoor pool"));
  await user.click(screen.getByText("Not known yet"));
  for (let step = 0; step < 3; step++) await user.click(screen.getByText("Next"));
  await user.click(screen.getByText("Liquid chlorine"));
  willReply("/pools", SALT);
  willRefuse("/shelf", "The database is busy.", null, 503);
  await user.click(screen.getByText("Set up, then test the water"));
  expect(await screen.findByText("The database is busy.")).toBeTruthy();
  willReply("/pools", SALT);
  await user.click(screen.getByText("Set up, then test the water"));
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}/test`));
  const [first, again] = sentTo("/shelf");
  expect(again?.id).toBe(first?.id);
  expect(sentTo("/pools")[0]?.id).toBe(sentTo("/pools")[1]?.id);
});

it("what the server refuses opens the question it belongs to; who has a shelf is not asked for it", async () => {
  const { user } = render(<GuidedPage />, AT);
  await user.click(await screen.findByText("Indoor pool"));
  await user.click(screen.getByText("Not known yet"));
  await user.click(screen.getByText("Next"));
  await user.click(screen.getByText("Next"));
  expect(screen.getByText(/4 of 4/)).toBeTruthy();
  willRefuse("/pools", "Give the pool a name, so that it can be told from others.", "settings.name");
  await user.click(screen.getByText("Set up, then test the water"));
  await waitFor(() => expect(address()).toBe("/pools/new?at=place"));
  expect(screen.getByLabelText("Name of the pool").getAttribute("aria-invalid")).toBe("true");
  expect(sent.filter(({ path }) => path.endsWith("/pools"))).toHaveLength(1);
});

it("a size that cannot be is said at its field, however fast one goes on", async () => {
  const { user } = render(<GuidedPage />, AT);
  await user.click(await screen.findByText("Indoor pool"));
  await user.click(screen.getByText("The gallons I know"));
  // Asked as one goes on, and a moment later for what stands in the field.
  for (let time = 0; time < 2; time++)
    willRefuse("/basins/preview", '"twelve" is no number; type digits.', "volume");
  const field = screen.getByLabelText(/^Volume, gallons/);
  await user.type(field, "twelve{Enter}");
  await waitFor(() => expect(field.getAttribute("aria-invalid")).toBe("true"));
  expect(screen.getAllByText('"twelve" is no number; type digits.').length).toBeGreaterThan(0);
  expect(address()).toBe("/pools/new?at=size");
});
