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
