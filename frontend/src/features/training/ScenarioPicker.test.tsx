import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { TrainingScenario } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { ScenarioPicker } from "./ScenarioPicker";

const scenarios = recordedAt<TrainingScenario[]>("/practice");

it("tells each pool's story and goals, and begins one", async () => {
  const onBegin = vi.fn();
  const { user } = render(<ScenarioPicker scenarios={scenarios} onBegin={onBegin} />);
  for (const { story } of scenarios) expect(screen.getByText(story)).toBeTruthy();
  await user.click(screen.getByLabelText(`Begin: ${scenarios[0]?.title}`));
  expect(onBegin).toHaveBeenCalledWith(scenarios[0]?.key);
});
