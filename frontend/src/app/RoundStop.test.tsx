import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render, SALT } from "../testing/render";
import { sentTo } from "../testing/server";
import { RoundStop } from "./RoundStop";

const STOP = { id: SALT.id, name: SALT.settings.name };

it("goes on to the next stop with the note", async () => {
  const next = { id: "11111111-1111-4111-8111-111111111111", name: "Next door" };
  const { user } = render(<RoundStop stop={STOP} position={1} of={2} next={next} />);
  await user.click(screen.getByText("Note"));
  await user.type(screen.getByLabelText("Note to the owner"), "Gate was open");
  await user.click(screen.getByRole("button", { name: "Next stop: Next door" }));
  await waitFor(() => expect(address()).toBe(`/pools/${next.id}/test`));
  expect(sentTo("/visits")[0]).toMatchObject({ note: "Gate was open", needs_return: false });
});
