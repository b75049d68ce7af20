import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { ShownOnce } from "./ShownOnce";

it("says what to do with a secret, shows it, and copies it", async () => {
  const { user } = render(<ShownOnce say="Pass this on:" secret="s3cret" testId="link" />);
  const writeText = vi.spyOn(navigator.clipboard, "writeText").mockResolvedValue();
  expect(screen.getByText("Pass this on:")).toBeTruthy();
  expect(screen.getByTestId("link").textContent).toBe("s3cret");
  await user.click(screen.getByText("Copy"));
  expect(writeText).toHaveBeenCalledWith("s3cret");
});
