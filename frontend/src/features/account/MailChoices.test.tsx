import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willAnswer, willRefuse } from "../../testing/server";
import { MailChoices } from "./MailChoices";

it("keeps what is chosen, and says at the address what is wrong with it", async () => {
  willAnswer("/mail-choice", { address: "", kinds: [], hour: 8, time_zone: "UTC" });
  const { user } = render(<MailChoices />);
  await user.click(await screen.findByText("What is due today"));
  await user.type(screen.getByLabelText("By mail to this address"), "ann@example");
  willRefuse("/mail-choice", "This is no mail address.", "address");
  await user.click(screen.getByText("Keep this"));
  expect(await screen.findByText("This is no mail address.")).toBeTruthy();
  await user.type(screen.getByLabelText("By mail to this address"), ".com");
  await user.click(screen.getByText("Keep this"));
  await waitFor(() =>
    expect(sentTo("/mail-choice").at(-1)).toMatchObject({
      address: "ann@example.com",
      kinds: ["due"],
      hour: 8,
    }),
  );
});
