import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { Programs } from "./Programs";

it("names a program, shows its secret once, and ends it", async () => {
  willAnswer("/hooks", []);
  const { user } = render(<Programs />);
  await user.type(await screen.findByLabelText("Address of the program"), "example.com");
  willRefuse("/hooks", "This is no address of a program.", "url");
  await user.click(screen.getByText("Tell it of entries"));
  expect(await screen.findByText("This is no address of a program.")).toBeTruthy();
  const hook = { id: "h1", url: `https:${"//"}example.com/kumpan`, created_at: "2026-06-01T12:00:00Z" };
  willReply("/hooks", { ...hook, secret: "s3cret" });
  willAnswer("/hooks", [hook]);
  await user.clear(screen.getByLabelText("Address of the program"));
  await user.type(screen.getByLabelText("Address of the program"), hook.url);
  await user.click(screen.getByText("Tell it of entries"));
  expect((await screen.findByTestId("hook-secret")).textContent).toContain("s3cret");
  await user.click(await screen.findByLabelText(`End ${hook.url}`));
  await waitFor(() => expect(sentTo("/hooks/h1/end")).toHaveLength(1));
});
