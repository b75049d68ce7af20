import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { TextField } from "./TextField";

it("hands on what is typed, as it is typed", async () => {
  const onText = vi.fn();
  const { user } = render(<TextField label="Volume" value="" onText={onText} help="like 5,000 gal" />);
  await user.type(screen.getByLabelText("Volume"), "2");
  expect(onText).toHaveBeenCalledWith("2");
  expect(screen.getByText("like 5,000 gal")).toBeTruthy();
});

it("says under the field what is wrong, in place of the help", () => {
  render(
    <TextField label="Volume" value="x" onText={() => undefined} help="like 5 gal" problem="Not a number." />,
  );
  expect(screen.getByText("Not a number.")).toBeTruthy();
  expect(screen.queryByText("like 5 gal")).toBeNull();
  expect(screen.getByLabelText("Volume").getAttribute("aria-invalid")).toBe("true");
});
