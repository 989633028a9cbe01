import { makeAction } from "@plain-palette/core/recipe";
import { expect, it } from "vitest";
import { tellActions, tellSpots } from "./say-changes.ts";

const turned = makeAction({ id: "a1", kind: "turn", quarters: 1 });
const flipped = makeAction({ id: "a2", kind: "flip", axis: "left-right" });
const cropped = makeAction({ id: "a3", kind: "crop", x: 0, y: 0, width: 100, height: 80 });

it("tells of the artwork what came, went or was switched, and not what is only tuned", () => {
  expect(tellActions([], [turned], 1)).toBe("Turned a quarter right.");
  expect(tellActions([turned, flipped], [flipped], 1)).toBe("Turned a quarter right: taken out.");
  expect(tellActions([turned], [{ ...turned, isOn: false }], 1)).toBe("Turned a quarter right: switched off.");
  expect(tellActions([cropped], [{ ...cropped, width: 90 } as typeof cropped], 1)).toBeNull();
});

it("tells of the colours which are no longer there, which are new and what each is to the press", () => {
  const red = { id: "d8412f", name: "Red", role: "ink" } as const;
  const light = { id: "e2604d", name: "Red 2", role: "ink" } as const;
  const white = { id: "ffffff", name: "White", role: "garment" } as const;
  expect(tellSpots([red, light, white], [red, white])).toBe("No longer a colour: Red 2. One ink now.");
  expect(tellSpots([red, white], [red, light, { ...white, role: "drop" }])).toBe(
    "New: Red 2. White is dropped. 2 inks now.",
  );
  expect(tellSpots([red, white], [{ ...red, name: "Signal red" }, white])).toBeNull();
});
