// The processes on the workbench. This is the one place outside their folders that names them.
import type { ProcessScreen } from "./screen.ts";
import { screensScreen } from "./screens/screens-screen.tsx";
import { stitchesScreen } from "./stitches/stitches-screen.tsx";
import { stonesScreen } from "./stones/stones-screen.tsx";
import { transferScreen } from "./transfer/transfer-screen.tsx";

const screens: ProcessScreen[] = [screensScreen, transferScreen, stitchesScreen, stonesScreen];

/** All of them, as the ticket offers them. */
export const allProcessScreens = (): readonly ProcessScreen[] => screens;

/** One more; its process is added to core's beside it. */
export function addProcessScreen(screen: ProcessScreen): void {
  screens.push(screen);
}

/** The screen of a process; throws where there is none. */
export function processScreenOf(id: string): ProcessScreen {
  const found = screens.find(({ process }) => process.id === id);
  if (!found) throw new RangeError(`the workbench has no process "${id}"`);
  return found;
}
