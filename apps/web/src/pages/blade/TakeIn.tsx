import { sayIn } from "@true-spine/core/sums/sum.ts";
import { sumOf } from "@true-spine/core/sums/sums.ts";
import { useEffect, useRef } from "react";
import { useLocation, useNavigate } from "react-router";
import { useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useNotices } from "../../parts/Notices.tsx";
import type { PutState } from "../sums/PutInto.tsx";

/** Puts a sum that came with the way here into the blade: one step, which undo takes back. */
export function TakeIn() {
  const { open } = useScreen();
  const { state, pathname } = useLocation() as { state: { put?: PutState } | null; pathname: string };
  const navigate = useNavigate();
  const put = state?.put;
  const taken = useRef(false);
  useEffect(() => {
    if (!put || taken.current) return;
    taken.current = true;
    const sum = sumOf(put.sum);
    const answer = sum?.answer(put.given, sayIn("mm"));
    if (answer?.state === "answered" && answer.put) {
      open.end();
      const why = whyNot(open.edit(answer.put));
      useNotices
        .getState()
        .tell(
          why
            ? `${sum!.name} could not be put into this blade: ${why}`
            : `${sum!.name} is put in. Ctrl+Z takes it back.`,
        );
    }
    // Not again when the page is loaded anew.
    navigate(pathname, { replace: true, state: null });
  }, [put, open, navigate, pathname]);
  return null;
}
