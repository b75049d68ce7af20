import { screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { PhotoLine } from "../api/photos";
import { render } from "../testing/render";
import { isDown, sentTo, willAnswer, willRefuse } from "../testing/server";
import { BeforeAndAfter, Photos } from "./Photos";

const photo = (part: Partial<PhotoLine>): PhotoLine => ({
  entry_id: part.note ?? "e",
  at: "2026-07-01T17:00:00Z",
  by: "Nell Adair",
  sha256: "0".repeat(64),
  shows: "look",
  about: "",
  note: "",
  width: 4,
  height: 3,
  ...part,
});
const path = "/pools/p/photos";
const file = () => new File(["x"], "a.jpg", { type: "image/jpeg" });

beforeEach(() => vi.stubGlobal("createImageBitmap", () => Promise.reject(new Error("not here"))));

it("shows those of one thing, and sends another for it", async () => {
  willAnswer(path, {
    photos: [photo({ note: "mine", about: "x" }), photo({ note: "else", about: "y" })],
    before: null,
    after: null,
  });
  const { user } = render(<Photos poolId="p" zone="UTC" shows="look" about="x" />);
  expect(await screen.findByLabelText(/Photo: mine/)).toBeTruthy();
  expect(screen.queryByLabelText(/Photo: else/)).toBeNull();
  await user.upload(screen.getByLabelText("Add a photo"), file());
  await waitFor(() => expect(sentTo("/photos")).toMatchObject([{ shows: "look", about: "x" }]));
  expect(sentTo("/photos")[0]?.image).toMatch(/^data:image\/jpeg;base64,/);
});

it("says what is wrong with a photo, and keeps one where the server does not answer", async () => {
  willAnswer(path, { photos: [], before: null, after: null });
  const { user } = render(<Photos poolId="p" zone="UTC" shows="visit" />);
  willRefuse("/photos", "image: is in HEIC.", "image");
  await user.upload(await screen.findByLabelText("Add a photo"), file());
  expect(await screen.findByText("image: is in HEIC.")).toBeTruthy();
  isDown();
  await user.upload(await screen.findByLabelText("Add a photo"), file());
  expect(await screen.findByText(/is kept on this device/)).toBeTruthy();
});

it("puts before and after side by side", async () => {
  willAnswer(path, { photos: [], before: photo({ note: "green" }), after: photo({ note: "clear" }) });
  render(<BeforeAndAfter poolId="p" zone="UTC" />);
  expect(await screen.findByLabelText(/Photo: green/)).toBeTruthy();
  expect(screen.getByText("Now")).toBeTruthy();
});
