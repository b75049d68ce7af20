import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../testing/render";
import { CautionLine } from "./CautionLine";

const step = {
  cautions: ["Goggles and gloves on.", "Never into the skimmer."],
  signs: [
    { sign: "goggles" as const, text: "goggles" },
    { sign: "skimmer" as const, text: "not in the skimmer" },
  ],
};

it("tells all of it at the first step with a product", () => {
  render(<CautionLine step={step} hazardous full />);
  expect(screen.getByText("goggles")).toBeTruthy();
  expect(screen.getByText("Goggles and gloves on.")).toBeTruthy();
  expect(screen.queryByRole("group")).toBeNull();
});

it("is a short line later, which opens to the full words", async () => {
  const { user, container } = render(<CautionLine step={step} hazardous full={false} />);
  expect(screen.getByLabelText("Cautions: goggles, not in the skimmer")).toBeTruthy();
  const details = container.querySelector("details");
  expect(details?.open).toBe(false);
  await user.click(screen.getByText("goggles"));
  expect(details?.open).toBe(true);
  expect(screen.getByText("If it goes wrong").getAttribute("href")).toBe("/emergency");
});

it("is nothing where there is nothing to say, and words alone where nothing is drawn", () => {
  const { rerender, container } = render(
    <CautionLine step={{ cautions: [], signs: [] }} hazardous={false} full />,
  );
  expect(container.querySelector("details, p")).toBeNull();
  rerender(<CautionLine step={{ cautions: ["Mind the edge."], signs: [] }} hazardous={false} full={false} />);
  expect(screen.getByText("Mind the edge.")).toBeTruthy();
});
