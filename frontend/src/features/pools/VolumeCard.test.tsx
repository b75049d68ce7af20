import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { VolumeCard } from "./VolumeCard";

it("says the volume and the mean depth, or that they will come", () => {
  render(<VolumeCard found={null} units="us" />);
  expect(screen.getByText("appears when the size is complete")).toBeTruthy();
  render(
    <VolumeCard found={{ volume_l: 80_000, area_m2: 47, mean_depth_m: 1.6764, drawing: null }} units="us" />,
  );
  expect(screen.getByText("21,100 gal")).toBeTruthy();
  expect(screen.getByText("mean depth 5.5 ft")).toBeTruthy();
});
