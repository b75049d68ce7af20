import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { useMaintenance } from "../api/care";
import { render, SALT } from "../testing/render";
import { sentTo, willRefuse } from "../testing/server";
import { PressureForm } from "./PressureForm";

function Gauge() {
  return <PressureForm care={useMaintenance(SALT.id)} label="Filter pressure" />;
}

it("notes the gauge as it was typed, and is empty for the next", async () => {
  const { user } = render(<Gauge />);
  const field = screen.getByLabelText<HTMLInputElement>("Filter pressure, psi");
  await user.type(field, "14");
  await user.click(screen.getByText("Note it"));
  expect(await screen.findByText("Pressure noted.")).toBeTruthy();
  expect(sentTo("/pressures")).toMatchObject([{ pressure: "14" }]);
  await waitFor(() => expect(field.value).toBe(""));
});

it("says at the field what cannot be read, and keeps it", async () => {
  const { user } = render(<Gauge />);
  await user.type(screen.getByLabelText("Filter pressure, psi"), "high");
  willRefuse("/pressures", "Write a number, like 14.", "pressure");
  await user.click(screen.getByText("Note it"));
  expect(await screen.findByText("Write a number, like 14.")).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("Filter pressure, psi").value).toBe("high");
});
