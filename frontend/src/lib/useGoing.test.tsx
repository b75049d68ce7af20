import { act, renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { useGoing } from "./useGoing";

function held() {
  let settle = { done: () => {}, fail: (_: Error) => {} };
  const work = new Promise<void>((done, fail) => {
    settle = { done, fail };
  });
  return { work: () => work, settle };
}

it("knows each thing on its way for itself, until it has arrived or failed", async () => {
  const { result } = renderHook(useGoing);
  const [skim, brush] = [held(), held()];
  let failed: Promise<unknown> = Promise.resolve();
  act(() => {
    void result.current.during(["skim"], skim.work);
    failed = result.current.during(["brush"], brush.work).catch((error: Error) => error.message);
  });
  expect([result.current.goes("skim"), result.current.goes("brush")]).toEqual([true, true]);
  await act(async () => skim.settle.done());
  expect([result.current.goes("skim"), result.current.goes("brush")]).toEqual([false, true]);
  await act(async () => brush.settle.fail(new Error("refused")));
  expect(await failed).toBe("refused");
  expect(result.current.goes("brush")).toBe(false);
});
