import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { TestFormView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { QuickLine } from "./QuickLine";

const view = recordedAt<TestFormView>(`POST /pools/${SALT.id}/slip/read`);

it("puts what the server reads into the fields, and is empty then", async () => {
  const onFields = vi.fn();
  const read = vi.fn(async () => view);
  const { user } = render(
    <QuickLine read={read} onFields={onFields} onState={() => undefined} onDone={() => undefined} />,
  );
  const line = screen.getByLabelText<HTMLInputElement>("Quick line, then Enter");
  await user.type(line, "fc 1 ph 7.5{Enter}");
  expect(read).toHaveBeenCalledWith("fc 1 ph 7.5");
  expect(onFields.mock.calls[0]?.[0]).toMatchObject({ free_chlorine: "1", ph: "7.5" });
  expect(line.value).toBe("");
});

it("keeps what is not understood, and mends it in one tap", async () => {
  const problems = [
    { position: 0, piece: "fx", text: '"fx" is not a measure.', measure: null, suggestion: "fc" },
  ];
  const { user } = render(
    <QuickLine
      read={async () => ({ ...view, values: [], problems })}
      onFields={() => undefined}
      onState={() => undefined}
      onDone={() => undefined}
    />,
  );
  const line = screen.getByLabelText<HTMLInputElement>("Quick line, then Enter");
  await user.type(line, "fx 1{Enter}");
  await user.click(await screen.findByText("Use “fc”"));
  expect(line.value).toBe("fc 1");
});
