import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Choices } from "../../api/types";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { emptyForm, type PoolForm, settingsOf } from "./form";
import { Rules } from "./Rules";

const choices = recordedAt<Choices>("/choices");
let form: PoolForm | null = null;
function Form() {
  const kit = useKit<PoolForm>({ start: emptyForm(), send: async () => undefined });
  form = kit.form.watch();
  return (
    <KitForm kit={kit}>
      <Rules choices={choices} />
    </KitForm>
  );
}

it("keeps only the answers and ranges that were given, as they were typed", async () => {
  const { user } = render(<Form />);
  const [question] = choices.questions;
  const other = question?.answers[1];
  await user.selectOptions(screen.getByLabelText(question?.title ?? ""), other?.key ?? "");
  expect(screen.getByText(other?.reason ?? "none")).toBeTruthy();
  await user.type(screen.getByLabelText("Salt, low"), "2,700");
  if (!form) throw new Error("no form");
  expect(settingsOf(form).choices).toEqual([{ question: question?.key, option: other?.key }]);
  expect(settingsOf(form).own_ranges).toEqual([{ measure: "salt", low: "2,700", aim: "", high: "" }]);
});
