import { QueryClient } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://kumpan" } }); // the client asks for the page's own origin
const { askEarly } = await import("./early");

const TODAY = "/pools/0f0d5995-b5da-5323-8197-54215198c3ac";

it("asks who one is; on Today the head of the page, and once that is there all the rest", async () => {
  const queries = new QueryClient();
  let answer: () => void = () => undefined;
  const held = new Promise<undefined>((done) => {
    answer = () => done(undefined);
  });
  const asked = vi.spyOn(queries, "prefetchQuery").mockReturnValue(held);
  const names = () => asked.mock.calls.map(([{ queryKey }]) => String(queryKey[2] ?? queryKey.at(-1)));
  void askEarly(queries, `${TODAY}/log`, "us");
  expect(names()).toEqual(["auth"]);
  asked.mockClear();
  const first = askEarly(queries, TODAY, "us");
  expect(names()).toEqual(["auth", "head", "outlook"]);
  answer();
  await first;
  expect(names().slice(3)).toEqual(["board", "today", "assessment"]);
});
