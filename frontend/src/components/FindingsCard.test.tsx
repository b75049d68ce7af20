import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Assessment } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { FindingsCard, standsOn } from "./FindingsCard";

const path = `/pools/${SALT.id}/assessment`;
const judged = recordedAt<Assessment>(path);
const finding = {
  code: "drain_cover",
  severity: "danger" as const,
  measures: ["free_chlorine" as const],
  text: "The drain cover is loose.",
  remedy: {
    kind: "trade" as const,
    text: "Breaker off.",
    plan: null,
    measures: [],
    procedure: null,
    until: null,
  },
  entries: ["7f0c1a52-5a1f-4b7e-9b39-1f6f2f0d6a11"],
  law: "B.8",
};

it("lists what stands against the pool with its urgency, its remedy and what it stands on", async () => {
  willAnswer(path, { ...judged, findings: [finding] });
  render(<FindingsCard poolId={SALT.id} />);
  expect(await screen.findByText("Danger:")).toBeTruthy();
  expect(screen.getByText("Breaker off.")).toBeTruthy();
  expect(standsOn(finding)).toBe("free chlorine; one entry of the log; law B.8 of advice.");
});

it("is not there where nothing stands against the pool", () => {
  willAnswer(path, { ...judged, findings: [] });
  render(<FindingsCard poolId={SALT.id} />);
  expect(screen.queryByText("What is off now")).toBeNull();
});
