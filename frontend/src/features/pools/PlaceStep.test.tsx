import { screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { willAnswer } from "../../testing/server";
import { emptyForm, type PoolForm } from "./form";
import { PlaceStep } from "./PlaceStep";

const PHOENIX = {
  name: "Phoenix",
  region: "AZ",
  latitude_deg: 33.45,
  longitude_deg: -112.07,
  time_zone: "America/Phoenix",
};

function Step() {
  const kit = useKit<PoolForm>({
    start: { ...emptyForm(), timeZone: "America/Chicago" },
    send: async () => {},
  });
  return (
    <KitForm kit={kit}>
      <PlaceStep />
      <output data-testid="holds">
        {JSON.stringify([kit.form.watch("latitude"), kit.form.watch("timeZone")])}
      </output>
    </KitForm>
  );
}

afterEach(() => {
  vi.unstubAllGlobals();
  Reflect.deleteProperty(navigator, "geolocation");
});

it("a town gives the sun and the clock; another letter takes them back", async () => {
  willAnswer("/towns?find=Phoen&time_zone=America/Chicago", [PHOENIX]);
  const { user } = render(<Step />);
  expect(screen.getByText(/chief city of America\/Chicago/)).toBeTruthy();
  await user.type(screen.getByLabelText("Nearest town"), "Phoen");
  await user.click(await screen.findByText("Phoenix, AZ"));
  expect(screen.getByTestId("holds").textContent).toBe('["33.45","America/Phoenix"]');
  expect(screen.getByText(/Sun and clock of Phoenix, AZ/)).toBeTruthy();
  await user.type(screen.getByLabelText("Nearest town"), "x");
  expect(screen.getByTestId("holds").textContent).toContain('""');
});

it("the device's place finds the nearest town; a device that does not tell is answered with the cure", async () => {
  let tells = false;
  Object.defineProperty(navigator, "geolocation", {
    configurable: true,
    value: {
      getCurrentPosition: (found: PositionCallback, not: PositionErrorCallback) =>
        tells
          ? found({ coords: { latitude: 33.4, longitude: -112 } } as GeolocationPosition)
          : not({} as GeolocationPositionError),
    },
  });
  willAnswer("/towns/nearest?latitude_deg=33.4&longitude_deg=-112", PHOENIX);
  const { user } = render(<Step />);
  await user.click(screen.getByText("Use this device's place"));
  expect(screen.getByRole("alert").textContent).toContain("Type the nearest town instead");
  tells = true;
  await user.click(screen.getByText("Use this device's place"));
  expect(await screen.findByText(/Sun and clock of Phoenix, AZ/)).toBeTruthy();
  expect(screen.queryByRole("alert")).toBeNull();
});
