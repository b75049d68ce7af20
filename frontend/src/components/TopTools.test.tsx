import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { FIND } from "../lib/find";
import { render } from "../testing/render";
import { TopTools } from "./TopTools";

it("opens the finder, and leads to the emergency page", async () => {
  let found = 0;
  window.addEventListener(FIND, () => found++, { once: true });
  const { user } = render(<TopTools />);
  await user.click(await screen.findByLabelText("Find"));
  expect(found).toBe(1);
  expect(screen.getByLabelText("Emergency").getAttribute("href")).toBe("/emergency");
});
