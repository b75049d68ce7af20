import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Identified, KeyQuestion } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { IdentifyPage } from "./IdentifyPage";

const [look] = recordedAt<KeyQuestion[]>("/identify/questions");
const found = recordedAt<Identified>("/identify");

it("tells what it may be, what settles it, and begins again", async () => {
  const [choice] = look?.choices ?? [];
  willAnswer(`/identify?answers=${look?.key}:${choice?.key}`, {
    ...found,
    headline: "Most likely green algae",
  });
  const { user } = render(<IdentifyPage />, {
    at: `/pools/${SALT.id}/what-is-it`,
    route: "/pools/:poolId/what-is-it",
  });
  await user.click(await screen.findByText(choice?.label ?? ""));
  expect(await screen.findByText(found.settles)).toBeTruthy();
  expect(screen.getByText(/Most likely green algae/)).toBeTruthy();
  await user.click(screen.getByText("Begin again"));
  expect(screen.queryByText(found.settles)).toBeNull();
});
