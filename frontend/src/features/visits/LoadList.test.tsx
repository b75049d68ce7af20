import { screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Tray } from "../../api/types";
import { render } from "../../testing/render";
import { LoadList } from "./LoadList";

const trays: Tray[] = [
  {
    title: "Acids",
    caution: "Upright, apart from oxidizers.",
    lines: [
      {
        product_id: "p",
        label: "Muriatic acid 31 %",
        need_text: "1 gal",
        on_truck_text: "none",
        short_text: "1 gal",
      },
    ],
  },
];

it("says what to load with its caution, and takes a count as it is typed", async () => {
  const onCount = vi.fn(async () => true);
  const { user } = render(<LoadList trays={trays} busy={false} onCount={onCount} />);
  expect(screen.getByText("Upright, apart from oxidizers.")).toBeTruthy();
  await user.click(screen.getByLabelText("Count Muriatic acid 31 %"));
  await user.type(screen.getByLabelText("Muriatic acid 31 % on the truck now"), "2 gal");
  await user.click(screen.getByText("Keep"));
  expect(onCount).toHaveBeenCalledWith("p", "2 gal");
  await waitFor(() => expect(screen.queryByText("Keep")).toBeNull());
});

it("says what to take where nothing goes in", () => {
  render(<LoadList trays={[]} busy={false} onCount={async () => true} />);
  expect(screen.getByText(/By the last tests nothing goes in today/)).toBeTruthy();
});
