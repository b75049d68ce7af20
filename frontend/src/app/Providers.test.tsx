import { useQueryClient } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { modeStore } from "../theme/mode";
import { Providers } from "./Providers";
import { newQueryClient } from "./queryClient";

function Inside() {
  return <p>{useQueryClient() ? "asks the server" : "alone"}</p>;
}

it("gives every screen the theme, its light, and a way to ask the server", () => {
  modeStore.set("dusk");
  render(
    <Providers queries={newQueryClient()}>
      <Inside />
    </Providers>,
  );
  expect(screen.getByText("asks the server")).toBeTruthy();
  expect(document.documentElement.dataset.mode).toBe("dusk");
});
