import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../testing/render";
import { MainAction } from "./MainAction";

it("holds the one thing to press, and is not printed", () => {
  render(
    <MainAction>
      <button type="button">Save</button>
    </MainAction>,
  );
  expect(screen.getByText("Save").parentElement?.hasAttribute("data-noprint")).toBe(true);
});
