import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render, SALT } from "../../testing/render";
import { sentTo } from "../../testing/server";
import { ArchiveCard } from "./ArchiveCard";

it("archives a pool and leads to the list", async () => {
  const { user } = render(<ArchiveCard poolId={SALT.id} name="Salt pool" />, {
    at: `/pools/${SALT.id}/setup`,
    route: "/pools/:poolId/setup",
  });
  await user.click(screen.getByText("Archive Salt pool"));
  await waitFor(() => expect(address()).toBe("/"));
  expect(sentTo("/archive")).toEqual([{ back: false }]);
});
