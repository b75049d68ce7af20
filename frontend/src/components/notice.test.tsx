import { act, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { NoticeBar, notify, turnThePage } from "./notice";

it("says what was done, undoes it once, and is closed", async () => {
  const undo = vi.fn();
  const { user, container } = render(<NoticeBar />);
  act(() => notify("Noted: acid.", undo));
  expect(screen.getAllByText("Noted: acid.").length).toBeGreaterThan(0);
  const [first] = screen.getAllByText("Undo");
  if (first) await user.click(first);
  expect(undo).toHaveBeenCalledOnce();
  expect(container.textContent).not.toContain("Noted: acid.");
  act(() => notify("Saved."));
  const [close] = screen.getAllByLabelText("Close this message");
  if (close) await user.click(close);
  expect(screen.queryByText("Saved.")).toBeNull();
});

it("is put away on the next page where it was only said, not where it can be undone", () => {
  const now = vi.spyOn(performance, "now").mockReturnValue(1_000);
  render(<NoticeBar />);
  act(() => notify("Saved."));
  act(turnThePage);
  expect(screen.getAllByText("Saved.")).not.toEqual([]); // said with the step that led here
  now.mockReturnValue(9_000);
  act(turnThePage);
  expect(screen.queryAllByText("Saved.")).toEqual([]);
  act(() => notify("Noted: acid.", () => undefined));
  now.mockReturnValue(99_000);
  act(turnThePage);
  expect(screen.getAllByText("Noted: acid.")).not.toEqual([]);
});
