import { expect, it } from "vitest";
import { startTrying } from "./shapes-desk.ts";

it("what is tried next has a name that no entry had, and the scope that was chosen", () => {
  const first = startTrying([], { kind: "all" });
  expect(first).toMatchObject({ id: "s1", kind: "simplify", isOn: true, scope: { kind: "all" } });
  const next = startTrying([first, { ...first, id: "s7" }], { kind: "spot", spotId: "d8412f" });
  expect(next).toMatchObject({ id: "s8", scope: { spotId: "d8412f" } });
});
