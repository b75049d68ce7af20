import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { LogLine } from "../../api/types";
import { address, render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willAnswer, willRefuse } from "../../testing/server";
import { LogPage } from "./LogPage";

const log = recordedAt<LogLine[]>(`/pools/${SALT.id}/log`);
const where = { at: `/pools/${SALT.id}/log`, route: "/pools/:poolId/log" };
const [line] = log;
const told = (part: Partial<LogLine>) =>
  willAnswer(`/pools/${SALT.id}/log`, [{ ...line, can_change: true, ...part }]);

it("lists what happened, day by day", async () => {
  render(<LogPage />, where);
  expect((await screen.findAllByText(line?.title ?? "none")).length).toBeGreaterThan(0);
});

it("corrects an amount as it is typed, and says at the field what cannot be read", async () => {
  told({ kind: "addition", title: "Muriatic acid", detail: "12 fl oz" });
  const { user } = render(<LogPage />, where);
  await user.click(await screen.findByLabelText("Correct: Muriatic acid"));
  const field = screen.getByLabelText<HTMLInputElement>("What really went in");
  await user.clear(field);
  await user.type(field, "8 heaps");
  willRefuse("/correct-addition", 'The unit "heaps" is not known.', "amount");
  await user.click(screen.getByText("Correct"));
  expect(await screen.findByText('The unit "heaps" is not known.')).toBeTruthy();
  expect(field.value).toBe("8 heaps");
  await user.clear(field);
  await user.type(field, "8 fl oz");
  await user.click(screen.getByText("Correct"));
  expect(await screen.findByText("Corrected. The old value stays in the log.")).toBeTruthy();
  expect(sentTo("/correct-addition").map(({ amount }) => amount)).toEqual(["8 heaps", "8 fl oz"]);
});

it("takes an entry back; a test is corrected on its slip", async () => {
  told({ kind: "test", title: "Test" });
  const { user } = render(<LogPage />, where);
  await user.click(await screen.findByLabelText("Take back: Test"));
  await waitFor(() => expect(sentTo("/void")).toHaveLength(1));
  await user.click(screen.getByLabelText("Correct: Test"));
  expect(address()).toBe(`/pools/${SALT.id}/test?correct=${line?.id}`);
});
