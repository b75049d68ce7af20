import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Choices } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { KindList } from "./KindList";

it("each kind says what it is taken to be; what is refused and who decides at a public pool stand below", async () => {
  const picked = vi.fn();
  const { user } = render(<KindList choices={recordedAt<Choices>("/choices")} onPick={picked} />);
  expect(screen.getByText("vinyl, tablets, sand filter")).toBeTruthy();
  await user.click(screen.getByText("Indoor pool"));
  expect(picked).toHaveBeenCalledWith(expect.objectContaining({ key: "indoor" }));
  expect(screen.getByText(/Bromine pools are out of scope/)).toBeTruthy();
  expect(screen.getByText(/usually needs a certified operator/)).toBeTruthy();
});
