import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { KitForm, useKit } from "../../forms/kit";
import { render, SALT } from "../../testing/render";
import { emptyDraft, type TestDraft } from "./useTestForm";
import { VisualCheckCard } from "./VisualCheckCard";

const kept: TestDraft[] = [];
function Form() {
  const kit = useKit<TestDraft>({
    start: emptyDraft(),
    send: async (draft) => kept.push(structuredClone(draft)),
  });
  return (
    <KitForm kit={kit}>
      <VisualCheckCard poolId={SALT.id} />
      <button type="submit">Keep</button>
    </KitForm>
  );
}

it("takes what is seen in one tap each, and takes an oddity back", async () => {
  const { user } = render(<Form />);
  await user.click(screen.getByText("Something odd"));
  await user.click(screen.getByText("Hazy"));
  await user.click(screen.getByText("Low"));
  await user.click(screen.getByText("leaves"));
  await user.click(screen.getByText("foam"));
  await user.click(screen.getByText("leaves"));
  await user.click(screen.getByText("Keep"));
  expect(kept).toMatchObject([{ clarity: "hazy", level: "low", odd: ["foam"] }]);
});

it("keeps a danger by the word that the judge knows", async () => {
  const { user } = render(<Form />);
  await user.click(screen.getByText("Something odd"));
  await user.click(screen.getByLabelText("Drain cover loose, cracked or gone"));
  await user.click(screen.getByText("Keep"));
  expect(kept.at(-1)).toMatchObject({ odd: ["drain_cover"] });
});

it("takes clear water and the right level in one tap, and takes it back", async () => {
  const { user } = render(<Form />);
  await user.click(screen.getByText("Clear, level right"));
  await user.click(screen.getByText("Keep"));
  expect(kept.at(-1)).toMatchObject({ clarity: "clear", level: "normal", odd: [] });
  await user.click(screen.getByText("Clear, level right"));
  await user.click(screen.getByText("Keep"));
  expect(kept.at(-1)).toMatchObject({ clarity: null, level: null });
});
