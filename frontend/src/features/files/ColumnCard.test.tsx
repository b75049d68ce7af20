import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { ImportColumn } from "../../api/files";
import { render } from "../../testing/render";
import { ColumnCard } from "./ColumnCard";
import { CHOICES, VIEW } from "./testing";

function show(n: number) {
  const onColumn = vi.fn<(column: ImportColumn) => void>();
  const column = VIEW.manner.columns[n];
  if (column === undefined) throw new Error("no such column");
  const card = (
    <ColumnCard
      title={VIEW.header[n] ?? ""}
      cells={["6/3/26", "", "6/4/26"]}
      column={column}
      kind="notebook"
      choices={CHOICES}
      onColumn={onColumn}
    />
  );
  return { onColumn, ...render(card) };
}

it("shows header and cells, and turns a date into a reading with a measure", async () => {
  const { user, onColumn } = show(0);
  expect(screen.getByText("6/3/26 · 6/4/26")).toBeTruthy();
  await user.selectOptions(screen.getByLabelText("Written"), "day_first");
  expect(onColumn.mock.lastCall?.[0]).toMatchObject({ role: "date", dates: "day_first" });
  await user.selectOptions(screen.getByLabelText("Holds"), "measure");
  expect(onColumn.mock.lastCall?.[0]).toMatchObject({ role: "measure", measure: "free_chlorine" });
});

it("corrects unit and decimals of a reading", async () => {
  const { user, onColumn } = show(2);
  await user.selectOptions(screen.getByLabelText("Holds"), "measure");
  expect(onColumn.mock.lastCall?.[0]).toMatchObject({ measure: "free_chlorine", chemical: "" });
  await user.selectOptions(screen.getByLabelText("Decimals like"), "comma");
  expect(onColumn.mock.lastCall?.[0]).toMatchObject({ decimal_comma: true });
});

it("has no unit for pH", () => {
  show(1);
  expect(screen.queryByLabelText("In")).toBeNull();
});

it("forgets a strength that belonged to another product", async () => {
  const { user, onColumn } = show(2);
  await user.selectOptions(screen.getByLabelText("Which product"), "boric_acid");
  expect(onColumn.mock.lastCall?.[0]).toMatchObject({
    chemical: "boric_acid",
    strength_percent: null,
  });
});
