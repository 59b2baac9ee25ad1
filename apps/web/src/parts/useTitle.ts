import { useEffect } from "react";

/** Names the page in its tab, what is particular first. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), "True Spine"].join(" · ");
  useEffect(() => {
    document.title = title;
  }, [title]);
}
