import { act, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { NoticeBar, notify } from "./notice";

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
