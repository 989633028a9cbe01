// Typefaces that the shop can set, and how they look.
import type { ListedTypeface } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api } from "../api/client.ts";

const NONE: readonly ListedTypeface[] = [];

export function useTypefaces(): readonly ListedTypeface[] {
  return useQuery({ queryKey: ["typefaces"], queryFn: api.listTypefaces }).data ?? NONE;
}

/** By typeface: whether the page has its files. */
const loading = new Map<string, Promise<unknown>>();

/** The CSS families of a typeface's files once the page has them, "none" where it cannot draw them; null before. Fetched where `isWanted`. */
export function useTypefaceStack(
  { id, files }: Pick<ListedTypeface, "id" | "files">,
  isWanted: boolean,
): string | null {
  const [stack, setStack] = useState<string | null>(null);
  useEffect(() => {
    if (!isWanted) return;
    const names = Array.from({ length: files }, (_, k) => `${id}-${k}`);
    const known =
      loading.get(id) ?? Promise.all(names.map((name, k) => loadFace(name, `/api/typefaces/${id}/files/${k}`)));
    loading.set(id, known);
    let isGone = false;
    const show = (next: string) => !isGone && setStack(next);
    known
      .then(() => show(names.map((name) => `"${name}"`).join(", ")))
      .catch(() => {
        loading.delete(id);
        show("none");
      });
    return () => {
      isGone = true;
    };
  }, [id, files, isWanted]);
  return stack;
}

async function loadFace(name: string, address: string): Promise<void> {
  document.fonts.add(await new FontFace(name, `url(${address})`).load());
}
