import { screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { visitStore } from "../lib/visit";
import { render, SALT } from "../testing/render";
import { VisitBar } from "./VisitBar";

afterEach(() => visitStore.set(""));

it("leads back to the visit from every page of its pool, and stands nowhere else", () => {
  visitStore.set(SALT.id);
  const { unmount } = render(<VisitBar />, { at: `/pools/${SALT.id}/plan` });
  expect(screen.getByRole("link", { name: "Back to the visit" }).getAttribute("href")).toBe(
    `/pools/${SALT.id}/visit`,
  );
  unmount();
  for (const path of [`/pools/${SALT.id}/visit`, "/shelf"]) {
    const shown = render(<VisitBar />, { at: path });
    expect(screen.queryByText("Back to the visit")).toBeNull();
    shown.unmount();
  }
});
