import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { PickMany, PickOne } from "./Pick";

it("takes one of several in one tap", async () => {
  const onPick = vi.fn();
  const options = [
    { value: "clear", label: "Clear" },
    { value: "hazy", label: "Hazy" },
  ];
  const { user } = render(<PickOne label="The water is" options={options} value="clear" onPick={onPick} />);
  expect(screen.getByLabelText<HTMLInputElement>("Clear").checked).toBe(true);
  await user.click(screen.getByText("Hazy"));
  expect(onPick).toHaveBeenCalledWith("hazy");
});

it("takes any of several, each for itself", async () => {
  const onToggle = vi.fn();
  const { user } = render(
    <PickMany label="Odd" options={["leaves", "foam"]} values={["foam"]} onToggle={onToggle} inline />,
  );
  expect(screen.getByLabelText<HTMLInputElement>("foam").checked).toBe(true);
  await user.click(screen.getByText("leaves"));
  expect(onToggle).toHaveBeenCalledWith("leaves");
});
