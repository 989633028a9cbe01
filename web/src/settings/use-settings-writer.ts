// Settings as they are typed: shown at once, sent one request after another, and none lost when the page is left.
import type { Problem } from "@plain-palette/contract";
import type { ShopSettings, ShopSettingsPatch } from "@plain-palette/core/shelf";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { api } from "../api/client.ts";
import { problemOf } from "../parts/problem.tsx";

export function useSettingsWriter() {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const writer = useMemo(() => {
    let waiting: ShopSettingsPatch = {};
    let isSending = false;
    const isWaiting = () => Object.keys(waiting).length > 0;
    const take = () => {
      const patch = waiting;
      waiting = {};
      return patch;
    };
    const show = (settings: ShopSettings) => queries.setQueryData(["settings"], settings);
    const send = async (): Promise<void> => {
      isSending = true;
      let isRefused = false;
      while (isWaiting()) {
        try {
          const stored = await api.changeSettings(take());
          if (!isWaiting()) show(stored);
        } catch (error) {
          isRefused = true;
          setProblem(problemOf(error));
        }
      }
      isSending = false;
      if (isRefused) await queries.invalidateQueries({ queryKey: ["settings"] });
    };
    return {
      set(part: ShopSettingsPatch) {
        setProblem(null);
        waiting = { ...waiting, ...part };
        // An answer that is on its way was read before this change, and would show the old value again.
        void queries.cancelQueries({ queryKey: ["settings"] });
        queries.setQueryData<ShopSettings>(["settings"], (old) => old && { ...old, ...part });
        if (!isSending) void send();
      },
      /** What waits behind a request is sent beside it: the browser finishes both after the page is gone. */
      leave() {
        if (isWaiting()) void api.changeSettings(take());
      },
    };
  }, [queries]);
  useEffect(() => {
    window.addEventListener("pagehide", writer.leave);
    return () => {
      window.removeEventListener("pagehide", writer.leave);
      writer.leave();
    };
  }, [writer]);
  return { problem, forget: () => setProblem(null), set: writer.set };
}
