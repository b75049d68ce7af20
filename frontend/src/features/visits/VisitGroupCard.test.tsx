import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { useVisit, type VisitLine } from "../../api/visit";
import { render, SALT } from "../../testing/render";
import { VisitGroupCard } from "./VisitGroupCard";

const LINE: VisitLine = {
  key: "cell",
  group: "equipment",
  title: "Inspect the cell",
  detail: "",
  usual: false,
  procedure: "cell",
  station: null,
  why: "every three weeks",
  mark: "open",
  at: null,
};

function Shown({ line, goesOn }: { line: VisitLine; goesOn: boolean }) {
  const visit = useVisit(SALT.id);
  return (
    <VisitGroupCard
      title="Equipment"
      lines={[line]}
      poolId={SALT.id}
      visit={visit}
      goesOn={goesOn}
      zone="America/Chicago"
      locked={false}
    />
  );
}

it("leads to the steps of what asks for more than a tick", () => {
  render(<Shown line={LINE} goesOn />);
  expect(screen.queryByText("As usual")).toBeNull();
  expect(screen.getByRole("link", { name: "Steps" }).getAttribute("href")).toContain("/care/do/cell");
  expect(screen.getByText("every three weeks")).toBeTruthy();
});

it("says when it was done", () => {
  render(<Shown line={{ ...LINE, mark: "done", at: "2026-07-01T17:05:00Z" }} goesOn />);
  expect(screen.getByText(/done at 12:05 PM/)).toBeTruthy();
  expect(screen.queryByRole("link", { name: "Steps" })).toBeNull();
});

it("offers nothing to tick before the visit is begun", () => {
  render(<Shown line={{ ...LINE, usual: true }} goesOn={false} />);
  expect(screen.queryByRole("button")).toBeNull();
});
