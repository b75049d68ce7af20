import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render } from "../testing/render";
import { PlainLink, TextLink } from "./TextLink";

it("leads there, and marks where one is", async () => {
  const { user } = render(
    <nav>
      <TextLink to="/round">Round</TextLink>
      <PlainLink to="/shelf">Shelf</PlainLink>
    </nav>,
    { at: "/round" },
  );
  expect(screen.getByText("Round").getAttribute("aria-current")).toBe("page");
  await user.click(screen.getByText("Shelf"));
  expect(address()).toBe("/shelf");
});
