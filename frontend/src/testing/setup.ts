import "fake-indexeddb/auto";
import { cleanup, configure } from "@testing-library/react";
import { afterEach, beforeEach, expect, vi } from "vitest";
import { outbox } from "../api/outbox";
import { closeNotice } from "../components/notice";
import { personStore } from "../lib/person";
import { activeRoundStore, driverStore } from "../lib/round";
import { unitsStore } from "../lib/units";
import { modeStore } from "../theme/mode";
import { answering, NOW } from "./server";

// What jsdom has not and the screens ask for.
class Watcher {
  observe() {}
  unobserve() {}
  disconnect() {}
}
vi.stubGlobal("ResizeObserver", Watcher);
vi.stubGlobal("IntersectionObserver", Watcher);
window.matchMedia = (query: string) =>
  ({
    matches: query.startsWith("(min-width"), // a desk
    media: query,
    addEventListener() {},
    removeEventListener() {},
  }) as unknown as MediaQueryList;
window.scrollTo = () => undefined;
Element.prototype.scrollIntoView = () => undefined;
configure({
  asyncUtilTimeout: 8_000,
  defaultHidden: true,
  getElementError: (message) => new Error(message?.slice(0, 300)),
});

// jsdom walks the whole page once for each label of each field: a question for a field of a long form took seconds.
for (const { prototype } of [HTMLInputElement, HTMLSelectElement, HTMLTextAreaElement, HTMLButtonElement])
  Object.defineProperty(prototype, "labels", {
    get(this: HTMLElement) {
      const around = this.closest("label");
      const named = this.id === "" ? [] : document.querySelectorAll(`label[for=${JSON.stringify(this.id)}]`);
      return around === null || around.htmlFor !== "" ? [...named] : [around, ...named];
    },
  });

// Everything has a size, so that charts draw.
Element.prototype.getBoundingClientRect = () => new DOMRect(0, 0, 800, 320);

/** What React or a library complains of: a warning is an error here. */
const complaints: string[] = [];

beforeEach(() => {
  complaints.length = 0;
  for (const level of ["error", "warn"] as const)
    vi.spyOn(console, level).mockImplementation((...said) => void complaints.push(said.join(" ")));
  vi.useFakeTimers({ now: NOW, toFake: ["Date"] });
  answering();
});
afterEach(async () => {
  cleanup();
  const heard = [...complaints];
  closeNotice();
  for (const { body } of [...outbox.get()]) await outbox.discard(body.id);
  vi.useRealTimers();
  vi.restoreAllMocks();
  unitsStore.set("us");
  modeStore.set("paper");
  personStore.set("");
  driverStore.set("");
  activeRoundStore.set("");
  localStorage.clear();
  expect(heard).toEqual([]);
});
