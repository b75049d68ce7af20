import { QueryClient } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://kumpan" } }); // the client asks for the page's own origin
const { askEarly } = await import("./early");

it("asks who one is, and on Today all that it waits for; elsewhere nothing more", () => {
  const queries = new QueryClient();
  const asked = vi.spyOn(queries, "prefetchQuery").mockResolvedValue(undefined);
  const keys = () => asked.mock.calls.map(([{ queryKey }]) => String(queryKey.at(-1)));
  askEarly(queries, "/pools/0f0d5995-b5da-5323-8197-54215198c3ac/log", "us");
  expect(keys()).toHaveLength(1);
  asked.mockClear();
  askEarly(queries, "/pools/0f0d5995-b5da-5323-8197-54215198c3ac", "us");
  expect(keys()).toHaveLength(6);
});
