import { useEffect, useState } from "react";
import { flushSync } from "react-dom";

const LOOK_AGAIN_MS = 50;

/**
 * Whether a part has come that takes the place of what stands in for it in `box`. It never does while something there is being pressed,
 * and the link that had the keys has them again.
 */
export function useFreely(part: { load(): Promise<unknown> }, box: HTMLElement | null): boolean {
  const [isHere, setIsHere] = useState(false);
  useEffect(() => {
    if (!box) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isOver = false;
    const put = () => {
      if (isOver) return;
      if (box.querySelector(":active")) {
        timer = setTimeout(put, LOOK_AGAIN_MS);
        return;
      }
      const link = box.contains(document.activeElement) && document.activeElement?.getAttribute("href");
      flushSync(() => setIsHere(true));
      if (link) box.querySelector<HTMLElement>(`a[href="${CSS.escape(link)}"]`)?.focus();
    };
    // Where it does not come, what stands in for it stays.
    part.load().then(put, () => {});
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [part, box]);
  return isHere;
}
