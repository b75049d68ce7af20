import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willReply } from "../../testing/server";
import { MarkOnPapers } from "./MarkOnPapers";

it("sends the picture that is chosen, refuses one that is too large, and takes it off again", async () => {
  willReply("/workspace/mark", true);
  const { user } = render(<MarkOnPapers />);
  const choose = screen.getByLabelText("Choose a picture");
  await user.upload(choose, new File(["x".repeat(700_000)], "large.png", { type: "image/png" }));
  expect(await screen.findByText(/too large/)).toBeTruthy();
  expect(sentTo("/workspace/mark")).toEqual([]);
  await user.upload(choose, new File(["mark"], "mark.png", { type: "image/png" }));
  await waitFor(() =>
    expect(sentTo("/workspace/mark")).toEqual([{ image: "data:image/png;base64,bWFyaw==" }]),
  );
  await user.click(screen.getByText("No picture"));
  await waitFor(() => expect(sentTo("/workspace/mark")[1]).toEqual({ image: null }));
});
