import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { PoolPage } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { PoolListPage } from "./PoolListPage";

const COUNTS = { all: 12, asks: 4, untested: 1 };
const PAGE = "/pools?sort=attention&limit=50";

it("lists every pool with the way to it", async () => {
  render(<PoolListPage />);
  expect(await screen.findByText(SALT.settings.name)).toBeTruthy();
  expect(screen.getByText("Tannery Yard")).toBeTruthy();
});

it("says what to do where there is none", async () => {
  willAnswer(PAGE, { pools: [], unreadable: [], cursor: null, counts: COUNTS });
  render(<PoolListPage />);
  expect(await screen.findByText(/no pool/i)).toBeTruthy();
});

it("shows a pool that cannot be read, with its journal, and the others", async () => {
  const { pools } = recordedAt<PoolPage>(PAGE);
  willAnswer(PAGE, {
    pools,
    unreadable: [{ id: "p1", name: "Broken", why: "Not now." }],
    cursor: null,
    counts: COUNTS,
  });
  render(<PoolListPage />);
  expect(await screen.findByText("Not now.")).toBeTruthy();
  expect(screen.getByText("Download its journal").getAttribute("href")).toBe(
    "/api/v1/pools/p1/journal.jsonl",
  );
  expect(screen.getByText(SALT.settings.name)).toBeTruthy();
});

it("reads on page after page, and finds among many", async () => {
  const { pools } = recordedAt<PoolPage>(PAGE);
  const many = Array.from({ length: 10 }, (_, n) => ({ ...SALT, id: `p${n}` }));
  willAnswer(PAGE, { pools: many, unreadable: [], cursor: "more", counts: COUNTS });
  const last = pools.find(({ settings }) => settings.name === "Tannery Yard");
  willAnswer(`${PAGE}&cursor=more`, { pools: [last], unreadable: [], cursor: null, counts: COUNTS });
  willAnswer(`${PAGE}&query=tan`, { pools: [], unreadable: [], cursor: null, counts: COUNTS });
  const { user } = render(<PoolListPage />);
  await user.click(await screen.findByText("Show more pools"));
  expect(await screen.findByText("Tannery Yard")).toBeTruthy();
  expect(screen.queryByText("Show more pools")).toBeNull();
  await user.type(screen.getByLabelText("Find by name or place"), "tan");
  expect(await screen.findByText("No pool is called so, and none lies there.")).toBeTruthy();
});

it("shows what asks for something alone, with how many there are", async () => {
  const { pools } = recordedAt<PoolPage>(PAGE);
  willAnswer(`${PAGE}&show=asks`, { pools: pools.slice(0, 1), unreadable: [], cursor: null, counts: COUNTS });
  willAnswer(`${PAGE}&show=untested`, { pools: [], unreadable: [], cursor: null, counts: COUNTS });
  const { user } = render(<PoolListPage />);
  await user.click(await screen.findByText(/^Needs a hand/));
  expect(await screen.findByText("Needs a hand 4")).toBeTruthy();
  await user.click(screen.getByText(/^Not tested for a week/));
  expect(await screen.findByText("No pool is like that now.")).toBeTruthy();
});
