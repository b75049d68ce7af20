import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../testing/render";
import { ShownOnce } from "./ShownOnce";

it("says what to do with a secret, and shows it", () => {
  render(<ShownOnce say="Pass this on:" secret="s3cret" testId="link" />);
  expect(screen.getByText("Pass this on:")).toBeTruthy();
  expect(screen.getByTestId("link").textContent).toBe("s3cret");
});
