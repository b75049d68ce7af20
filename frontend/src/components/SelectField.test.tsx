import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { SelectField } from "./SelectField";

it("shows the choice, hands on another, and says what is wrong with it", async () => {
  const onPick = vi.fn();
  const options = [
    { value: "drops", label: "Drops" },
    { value: "strips", label: "Strips" },
  ];
  const { user } = render(
    <SelectField label="Kit" value="drops" options={options} onPick={onPick} problem="Choose another." />,
  );
  expect(screen.getByLabelText<HTMLSelectElement>("Kit").value).toBe("drops");
  await user.selectOptions(screen.getByLabelText("Kit"), "Strips");
  expect(onPick).toHaveBeenCalledWith("strips");
  expect(screen.getByText("Choose another.")).toBeTruthy();
});
