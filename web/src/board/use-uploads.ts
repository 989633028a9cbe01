// Pictures on their way to the server: dropped, chosen or pasted, one or several, each with its progress, each to be
// cancelled. One alone opens its job when it is there; of several the board shows the jobs.
import type { Job, Problem } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useReducer } from "react";
import { useNavigate } from "react-router";
import { uploadJob } from "../api/client.ts";
import { readAnew } from "../api/read-anew.ts";
import type { Sending } from "../api/requests.ts";
import { problemOf } from "../parts/problem.tsx";

export interface Upload {
  readonly id: number;
  readonly name: string;
  readonly sending: Sending;
  readonly problem: Problem | null;
  cancel(): void;
}

type Change =
  | { readonly kind: "begin"; readonly upload: Upload }
  | { readonly kind: "sending"; readonly id: number; readonly sending: Sending }
  | { readonly kind: "fail"; readonly id: number; readonly problem: Problem }
  | { readonly kind: "end"; readonly id: number };

function reduceUploads(uploads: readonly Upload[], change: Change): readonly Upload[] {
  switch (change.kind) {
    case "begin":
      return [...uploads, change.upload];
    case "sending":
      return uploads.map((one) => (one.id === change.id ? { ...one, sending: change.sending } : one));
    case "fail":
      return uploads.map((one) => (one.id === change.id ? { ...one, problem: change.problem } : one));
    case "end":
      return uploads.filter((one) => one.id !== change.id);
  }
}

let lastId = 0;

export function useUploads() {
  const [uploads, change] = useReducer(reduceUploads, []);
  const queries = useQueryClient();
  const navigate = useNavigate();

  const send = useCallback(async (file: File): Promise<Job | null> => {
    const id = ++lastId;
    const abort = new AbortController();
    change({ kind: "begin", upload: { id, name: file.name, sending: 0, problem: null, cancel: () => abort.abort() } });
    try {
      const job = await uploadJob({
        ...{ file, signal: abort.signal, onSending: (sending) => change({ kind: "sending", id, sending }) },
      });
      change({ kind: "end", id });
      return job;
    } catch (error) {
      if (abort.signal.aborted) change({ kind: "end", id });
      else change({ kind: "fail", id, problem: problemOf(error) });
      return null;
    }
  }, []);

  const take = useCallback(
    async (files: readonly File[]) => {
      if (files.length === 0) return;
      const jobs = await Promise.all(files.map(send));
      await readAnew(queries, ["jobs"]);
      const [job] = jobs;
      if (jobs.length === 1 && job) navigate(`/jobs/${job.id}/artwork`);
    },
    [send, queries, navigate],
  );

  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) event.preventDefault();
      void take(files);
    };
    // Before the window's own, which say what a page takes no files.
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  }, [take]);

  return { uploads, take, dismiss: (id: number) => change({ kind: "end", id }) };
}
