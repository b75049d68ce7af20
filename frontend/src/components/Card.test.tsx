import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../testing/render";
import { Card, Caution } from "./Card";

it("frames what stands in it, under the name it is given", () => {
  render(
    <Card as="section" aria-label="Cell">
      <Caution role="alert">Never mix acid and chlorine.</Caution>
    </Card>,
  );
  expect(screen.getByLabelText("Cell").textContent).toBe("Never mix acid and chlorine.");
  expect(screen.getByRole("alert")).toBeTruthy();
});
