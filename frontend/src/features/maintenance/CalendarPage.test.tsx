import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { CalendarDay } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willAnswer, willReply } from "../../testing/server";
import { CalendarPage } from "./CalendarPage";

const days = recordedAt<CalendarDay[]>(`/pools/${SALT.id}/calendar?days=42`);
const where = { at: `/pools/${SALT.id}/care/calendar`, route: "/pools/:poolId/care/calendar" };

it("lists six weeks, and gives the link for one's own calendar", async () => {
  const { user, container } = render(<CalendarPage />, where);
  await screen.findByText("Six weeks ahead");
  expect(container.textContent).toContain(days[0]?.items[0]?.title);
  willReply("/links", { id: "l1", path: "/api/v1/feeds/secret.ics" });
  await user.click(await screen.findByText("Make a calendar link"));
  expect((await screen.findByTestId("feed-link")).textContent).toContain("/api/v1/feeds/secret.ics");
  expect(sentTo("/links")).toEqual([{ kind: "feed", name: "" }]);
});

it("says what begins the schedule", async () => {
  willAnswer(`/pools/${SALT.id}/calendar?days=42`, []);
  render(<CalendarPage />, where);
  expect(await screen.findByText(/Enter a test, and the schedule begins/)).toBeTruthy();
});
