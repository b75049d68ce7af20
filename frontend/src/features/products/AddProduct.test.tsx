import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Choices } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { AddProduct } from "./AddProduct";

const choices = recordedAt<Choices>("/choices");

it("puts a product on the shelf with its usual strength, and is empty for the next", async () => {
  const { user } = render(<AddProduct choices={choices} units="us" />);
  await user.selectOptions(screen.getByLabelText("What it is"), "trichlor");
  expect(screen.getByLabelText<HTMLInputElement>(/Strength on the label/).value).toBe("90");
  await user.type(screen.getByLabelText(/One package/), "50 lb");
  await user.click(screen.getByText("Put it on the shelf"));
  expect(await screen.findByText("On the shelf.")).toBeTruthy();
  expect(sentTo("/shelf")).toMatchObject([
    { chemical: "trichlor", strength_percent: "90", package: "50 lb" },
  ]);
  expect(screen.getByLabelText<HTMLInputElement>(/One package/).value).toBe("");
});

it("says at the field what cannot be read, and keeps what was typed, on this device too", async () => {
  const { user } = render(<AddProduct choices={choices} units="us" />);
  await user.type(screen.getByLabelText(/One package/), "50 heaps");
  willRefuse("/shelf", 'The unit "heaps" is not known.', "package");
  await user.click(screen.getByText("Put it on the shelf"));
  expect(await screen.findByText('The unit "heaps" is not known.')).toBeTruthy();
  expect(localStorage.getItem("kumpan.draft.product")).toContain("50 heaps");
});

it("takes what is dosed by its label, filled in as such labels read and changed to the own one", async () => {
  const { user } = render(<AddProduct choices={choices} units="us" />);
  await user.selectOptions(screen.getByLabelText("What it is"), "clarifier");
  const first = screen.getByLabelText<HTMLInputElement>("First dose");
  expect(first.value).toBe("4 fl oz");
  await user.clear(first);
  await user.type(first, "6 fl oz");
  await user.click(screen.getByText("Put it on the shelf"));
  expect(await screen.findByText("On the shelf.")).toBeTruthy();
  expect(sentTo("/shelf")).toMatchObject([
    {
      chemical: "clarifier",
      label_dose: { first: "6 fl oz", upkeep: "2 fl oz", most: "8 fl oz", per: "10000 gal" },
    },
  ]);
});
