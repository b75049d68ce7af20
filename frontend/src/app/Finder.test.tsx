import { fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { Maintenance, PoolPage, Today } from "../api/types";
import { openFinder } from "../lib/find";
import { lastPoolStore } from "../lib/lastPool";
import { unitsStore } from "../lib/units";
import { address, render, SALT } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { Finder } from "./Finder";

beforeEach(() => {
  lastPoolStore.set("");
  HTMLDialogElement.prototype.showModal = function showModal() {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close() {
    this.open = false;
    this.dispatchEvent(new Event("close"));
  };
});

it("opens on / and Ctrl-K, and goes to a pool by a few letters and Enter", async () => {
  const { pools } = recordedAt<PoolPage>("/pools?sort=attention&limit=50");
  const one = pools.filter(({ id }) => id === SALT.id);
  willAnswer("/pools?sort=attention&limit=50&query=mill", { pools: one, unreadable: [], cursor: null });
  const { user } = render(<Finder />);
  fireEvent.keyDown(document.body, { key: "k", ctrlKey: true });
  await user.type(screen.getByRole("combobox"), "mill");
  expect((await screen.findAllByRole("option"))[0]?.textContent).toContain(SALT.settings.name);
  await screen.findByText(SALT.next.text);
  await user.keyboard("{Enter}");
  expect(address()).toBe(`/pools/${SALT.id}`);
});

it("goes through what was found by the arrows, and changes a setting", async () => {
  const { user } = render(<Finder />, { at: "/shelf" });
  openFinder();
  await user.type(await screen.findByRole("combobox"), "metric");
  await screen.findByText("Metric units");
  await user.keyboard("{ArrowDown}{ArrowUp}{Enter}");
  expect(unitsStore.get()).toBe("metric");
  expect(screen.queryByRole("combobox")).toBeNull();
});

it("says that nothing is called so", async () => {
  willAnswer("/pools?sort=attention&limit=50&query=zzzz", { pools: [], unreadable: [], cursor: null });
  const { user } = render(<Finder />);
  fireEvent.keyDown(document.body, { key: "/" });
  await user.type(screen.getByRole("combobox"), "zzzz");
  expect(await screen.findByText("Nothing is called so.")).toBeTruthy();
});

it("names a page that is called so before a task with the word in it", async () => {
  const due = recordedAt<Today>(`/pools/${SALT.id}/today`);
  const [item] = due.items;
  willAnswer(`/pools/${SALT.id}/today`, { ...due, items: [{ ...item, title: "Look round the equipment" }] });
  willAnswer("/pools?sort=attention&limit=50&query=round", { pools: [], unreadable: [], cursor: null });
  const { user } = render(<Finder />, { at: `/pools/${SALT.id}` });
  fireEvent.keyDown(document.body, { key: "/" });
  await user.type(screen.getByRole("combobox"), "round");
  await screen.findByText("Look round the equipment");
  expect(screen.getAllByRole("option").map(({ textContent }) => textContent)).toEqual([
    "Round",
    "Look round the equipmentDue at this pool",
  ]);
});

it("leads to any procedure, at the pool that was open last where no pool is", async () => {
  lastPoolStore.set(SALT.id);
  const [procedure] = recordedAt<Maintenance>(`/pools/${SALT.id}/care`).procedures;
  if (procedure === undefined) throw new Error("no procedure");
  const words = procedure.title.toLowerCase();
  const path = `/pools?sort=attention&limit=50&query=${encodeURIComponent(words).replaceAll("%20", "+")}`;
  willAnswer(path, { pools: [], unreadable: [], cursor: null });
  const { user } = render(<Finder />, { at: "/shelf" });
  openFinder();
  await user.type(await screen.findByRole("combobox"), words);
  await screen.findByText(`Step by step, ${SALT.settings.name}`);
  await user.click(screen.getAllByText(procedure.title).at(-1) as HTMLElement);
  expect(address()).toBe(`/pools/${SALT.id}/care/do/${procedure.key}`);
});
