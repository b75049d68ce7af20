import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { willAnswer } from "../../testing/server";
import { PoolListPage } from "./PoolListPage";

it("lists every pool with the way to it", async () => {
  render(<PoolListPage />);
  expect(await screen.findByText(SALT.settings.name)).toBeTruthy();
  expect(screen.getByText("Tannery Yard")).toBeTruthy();
});

it("says what to do where there is none", async () => {
  willAnswer("/pools", []);
  render(<PoolListPage />);
  expect(await screen.findByText(/no pool/i)).toBeTruthy();
});
