import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Person } from "../api/types";
import { personStore } from "../lib/person";
import { unitsStore } from "../lib/units";
import { render } from "../testing/render";
import { recordedAt, sentTo, willReply } from "../testing/server";
import { modeStore } from "../theme/mode";
import { Choosers } from "./Choosers";

const [first] = recordedAt<Person[]>("/people");

it("keeps who I am, the units and the light on this device", async () => {
  const { user } = render(<Choosers />);
  await user.selectOptions(screen.getByLabelText("Units"), "metric");
  await user.selectOptions(screen.getByLabelText("Light"), "sun");
  await screen.findByText(first?.name ?? "");
  await user.selectOptions(screen.getByLabelText("I am"), first?.name ?? "");
  expect(unitsStore.get()).toBe("metric");
  expect(modeStore.get()).toBe("sun");
  expect(personStore.get()).toBe(first?.id);
});

it("takes in someone new by a name", async () => {
  vi.spyOn(window, "prompt").mockReturnValue("Ada Holm");
  willReply("/people", { id: "11111111-1111-4111-8111-111111111111", name: "Ada Holm", initials: "AH" });
  const { user } = render(<Choosers />);
  await screen.findByText(first?.name ?? "");
  await user.selectOptions(screen.getByLabelText("I am"), "Someone new …");
  expect(sentTo("/people")).toMatchObject([{ name: "Ada Holm" }]);
  await vi.waitFor(() => expect(personStore.get()).toBe("11111111-1111-4111-8111-111111111111"));
});
