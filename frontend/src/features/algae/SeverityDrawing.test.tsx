import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { SeverityDrawing } from "./SeverityDrawing";

it("draws each severity in lines of its own, and leaves the words to the label", () => {
  const drawn = (["light", "green", "opaque", "mustard", "black"] as const).map((severity) => {
    const { container, unmount } = render(<SeverityDrawing severity={severity} />);
    const svg = container.querySelector("svg");
    expect(svg?.getAttribute("aria-hidden")).toBe("true");
    const lines = svg?.innerHTML ?? "";
    unmount();
    return lines;
  });
  expect(new Set(drawn).size).toBe(5);
});
