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

it("says under the field what is wrong, in place of the help, where it is read aloud as it comes", () => {
  const field = (problem: string | null) => (
    <TextField label="Volume" value="x" onText={() => undefined} help="like 5 gal" problem={problem} />
  );
  const { container, rerender } = render(field(null));
  const aloud = container.querySelector("[aria-live=polite]");
  expect(aloud?.textContent).toBe("");
  rerender(field("Not a number."));
  expect(container.querySelector("[aria-live=polite]")).toBe(aloud);
  expect(aloud?.textContent).toBe("Not a number.");
  expect(screen.queryByText("like 5 gal")).toBeNull();
  expect(screen.getByLabelText("Volume").getAttribute("aria-invalid")).toBe("true");
});
