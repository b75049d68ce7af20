import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { ApiToken } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willReply } from "../../testing/server";
import { Tokens } from "./Tokens";

const [known] = recordedAt<ApiToken[]>("/me/tokens");

it("shows a new token once, and takes one back", async () => {
  const { user } = render(<Tokens />);
  await user.type(screen.getByLabelText("What will use it"), "Garage");
  await user.click(screen.getByText("Read and write"));
  willReply("/me/tokens", { token: { ...known, name: "Garage" }, secret: "t0ken" });
  await user.click(screen.getByText("Make a token"));
  expect((await screen.findByTestId("token")).textContent).toBe("t0ken");
  expect(sentTo("/me/tokens")).toEqual([{ name: "Garage", scope: "write" }]);
  await user.click(await screen.findByLabelText(`Take back ${known?.name}`));
  await waitFor(() => expect(sentTo(`/me/tokens/${known?.id}/revoke`)).toHaveLength(1));
});
