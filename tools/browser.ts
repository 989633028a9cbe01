// Debian's Chromium under Playwright, for screenshots and browser tests.
import type { LaunchOptions } from "@playwright/test";

/** Flags under which it starts on a machine without a display or an outside network. */
export const CHROMIUM: LaunchOptions = {
  executablePath: "/usr/bin/chromium",
  args: [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
