import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { heldBack, recordedAt, sentTo, willAnswer } from "../../testing/server";
import { InterviewCard } from "./InterviewCard";

const first = recordedAt<{ ask: { replies: { key: string; label: string }[] } }>("/interview?tree=low_salt");

it("takes no second answer to a question that was answered", async () => {
  const reply = first.ask.replies[0];
  const { user } = render(<InterviewCard tree="low_salt" poolId={SALT.id} />);
  const button = await screen.findByText(reply?.label ?? "");
  heldBack("/interview");
  await user.click(button);
  expect(screen.getByText(reply?.label ?? "")).toHaveProperty("disabled", true);
});

it("asks until it ends, keeps the end in the log, and goes a step back", async () => {
  const reply = first.ask.replies[0];
  willAnswer(`/interview?tree=low_salt&answers=${reply?.key}`, {
    ask: null,
    cautions: ["Power off first."],
    end: {
      key: "e",
      title: "Salt is low",
      text: "Add salt.",
      hazard: "none",
      procedure: null,
      station: "sheet",
    },
  });
  const { user } = render(<InterviewCard tree="low_salt" poolId={SALT.id} />);
  await user.click(await screen.findByText(reply?.label ?? ""));
  expect(await screen.findByText("Salt is low")).toBeTruthy();
  expect(screen.getByText("Power off first.")).toBeTruthy();
  await user.click(screen.getByText("Keep in the log"));
  expect(await screen.findByText("Kept")).toBeTruthy();
  expect(sentTo("/interviews")).toMatchObject([{ tree: "low_salt", answers: [reply?.key] }]);
  await user.click(screen.getByText("One step back"));
  expect(await screen.findByText(reply?.label ?? "")).toBeTruthy();
});
