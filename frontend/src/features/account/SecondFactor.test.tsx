import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willRefuse, willReply } from "../../testing/server";
import { SecondFactor } from "./SecondFactor";

it("offers a secret to scan or to type, and is on after a first code", async () => {
  const { user } = render(<SecondFactor on={false} />);
  willReply(
    "/second-factor/offer",
    { secret: "ABCD", uri: "otpauth://totp/x", qr: ["101", "010", "111"] },
    200,
  );
  await user.click(screen.getByText("Turn it on"));
  expect(await screen.findByText("ABCD")).toBeTruthy();
  expect(screen.getByLabelText("The secret as a QR code").querySelector("path")?.getAttribute("d")).toContain(
    "M4 4h1v1h-1z",
  );
  await user.type(screen.getByLabelText("Code"), "000000");
  willRefuse("/me/second-factor", "This code is not right now.", "code");
  await user.click(screen.getByText("Turn it on"));
  expect(await screen.findByText("This code is not right now.")).toBeTruthy();
  await user.click(screen.getByText("Turn it on"));
  await waitFor(() => expect(sentTo("/me/second-factor")).toHaveLength(2));
  expect(sentTo("/me/second-factor")[1]).toEqual({ secret: "ABCD", code: "000000" });
});

it("is turned off by the password only", async () => {
  const { user } = render(<SecondFactor on={true} />);
  await user.type(screen.getByLabelText("Your password, to turn it off"), "three words of mine");
  await user.click(screen.getByText("Turn it off"));
  await waitFor(() => expect(sentTo("/second-factor/off")).toEqual([{ password: "three words of mine" }]));
});
