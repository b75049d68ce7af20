import { expect, it } from "vitest";
import { nameOfThis } from "./push";

it("calls a device by its kind and browser", () => {
  expect(nameOfThis("Mozilla/5.0 (Linux; Android 16) AppleWebKit Chrome/140 Mobile Safari")).toBe(
    "Android, Chrome",
  );
  expect(nameOfThis("Mozilla/5.0 (iPhone; CPU iPhone OS 19) Version/19 Safari/604")).toBe("iPhone, Safari");
  expect(nameOfThis("Mozilla/5.0 (Windows NT 10.0) Chrome/140 Safari Edg/140")).toBe("Windows, Edge");
  expect(nameOfThis("curl")).toBe("A device");
});
