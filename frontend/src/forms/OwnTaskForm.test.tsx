import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../testing/render";
import { sentTo, willRefuse } from "../testing/server";
import { OwnTaskForm } from "./OwnTaskForm";

it("puts a task on the lists of many pools, by a weekday in some months", async () => {
  const { user } = render(<OwnTaskForm pools={[SALT.id, "other"]} button="Put it on every list" />);
  await user.type(screen.getByLabelText("What"), "Oil the hinge");
  await user.selectOptions(screen.getByLabelText("When"), "Tuesdays");
  await user.selectOptions(screen.getByLabelText("In"), "Spring");
  await user.click(screen.getByText("Put it on every list"));
  expect(await screen.findByText("On the lists of 2 pools: Oil the hinge.")).toBeTruthy();
  expect(sentTo("/care/tasks")).toMatchObject([
    {
      title: "Oil the hinge",
      days: null,
      weekday: 1,
      after: null,
      months: [3, 4, 5],
      pool_ids: [SALT.id, "other"],
    },
  ]);
});

it("keeps what was typed where it is refused", async () => {
  willRefuse("/care/tasks", "Say what is to be done.", "title", 422);
  const { user } = render(<OwnTaskForm pools={[SALT.id]} button="Put it on the list" />);
  await user.selectOptions(screen.getByLabelText("When"), "After a storm");
  await user.click(screen.getByText("Put it on the list"));
  expect(await screen.findByText("Say what is to be done.")).toBeTruthy();
  await waitFor(() => expect(sentTo("/care/tasks")[0]).toMatchObject({ after: "storm", days: null }));
  expect(screen.getByRole("option", { name: "After a storm", selected: true })).toBeTruthy();
});
