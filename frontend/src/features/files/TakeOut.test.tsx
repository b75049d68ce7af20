import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Member } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { TakeOut } from "./TakeOut";

const hrefOf = (label: string) => screen.getByLabelText(label).getAttribute("href");
const technician = recordedAt<Member[]>("/members").find(({ role }) => role === "technician");

it("offers every table in both forms", async () => {
  render(<TakeOut />);
  expect(hrefOf("What was added as XLSX")).toBe("/api/v1/exports/additions.xlsx");
  expect(hrefOf("Costs as CSV")).toBe("/api/v1/exports/costs.csv");
});

it("takes out what is of a technician's rounds between two days", async () => {
  const { user } = render(<TakeOut />);
  await screen.findByText(`${technician?.name}’s rounds`);
  await user.selectOptions(screen.getByLabelText("Of"), `${technician?.name}’s rounds`);
  await user.type(screen.getByLabelText("From"), "2026-05-01");
  await user.type(screen.getByLabelText("To"), "2026-05-31");
  expect(hrefOf("Tests and looks as CSV")).toBe(
    `/api/v1/exports/tests.csv?technician_id=${technician?.id}&first=2026-05-01&last=2026-05-31`,
  );
});
