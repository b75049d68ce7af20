import { fireEvent, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Season } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { Ribbon } from "./Ribbon";

it("tells a mark in words, under the finger and in a table", () => {
  const season = recordedAt<Season>(`/pools/${SALT.id}/season`);
  const { container } = render(<Ribbon season={season} zone="America/Chicago" units="us" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain(`${season.marks.length} marks`);
  for (const rect of container.querySelectorAll("rect")) {
    fireEvent.pointerEnter(rect);
    fireEvent.click(rect);
  }
  expect(container.textContent).toContain(season.marks[0]?.text);
});

it("goes from mark to mark by two buttons, from today on", async () => {
  const [first, second] = recordedAt<Season>(`/pools/${SALT.id}/season`).marks;
  if (!first || !second) throw new Error("no marks");
  const marks = [
    { ...first, at: "2026-06-01T12:00:00Z", text: "long ago" },
    { ...first, at: "2026-06-20T12:00:00Z", text: "just before" },
    { ...second, at: "2026-07-20T12:00:00Z", text: "ahead" },
  ];
  const season = { ...recordedAt<Season>(`/pools/${SALT.id}/season`), marks, now_at: "2026-07-01T12:00:00Z" };
  const { user, container } = render(<Ribbon season={season} zone="America/Chicago" units="us" />);
  const told = async (button: string) => {
    await user.click(screen.getByLabelText(button));
    return container.querySelector("p[role=status]")?.textContent;
  };
  expect(await told("The mark before")).toContain("just before");
  expect(await told("The mark before")).toContain("long ago");
  expect(await told("The mark before")).toContain("long ago");
  expect(await told("The mark after")).toContain("just before");
  expect(await told("The mark after")).toContain("ahead");
});

it("keeps the names of its rows and degrees in sight where the year is moved under the finger", () => {
  const season = recordedAt<Season>(`/pools/${SALT.id}/season`);
  const warmth = [{ at: "2026-06-01T12:00:00Z", temperature_c: 24 }];
  const { container } = render(<Ribbon season={{ ...season, warmth }} zone="America/Chicago" units="us" />);
  const moved = screen.getByRole("region", { name: "Season ribbon" });
  for (const name of ["Tests", "Shocks", "Due", "68 °F", "77 °F"]) {
    expect(container.textContent).toContain(name);
    expect(moved.textContent).not.toContain(name);
  }
});
