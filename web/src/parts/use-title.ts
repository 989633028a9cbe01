// The name of the window says where one is.
import { useEffect } from "react";

export function useTitle(place: string): void {
  useEffect(() => {
    document.title = `${place} · Plain Palette`;
  }, [place]);
}
