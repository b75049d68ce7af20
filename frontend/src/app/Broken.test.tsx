import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../testing/render";
import { Broken } from "./Broken";

it("says that nothing saved is lost, and leads to the emergency page", () => {
  render(<Broken />);
  expect(screen.getByText(/What was saved is safe/)).toBeTruthy();
  expect(screen.getByText("Emergency page").getAttribute("href")).toBe("/emergency");
});
