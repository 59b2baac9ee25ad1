import type { Finding } from "@true-spine/core/findings/finding.ts";
import { useState } from "react";
import { useRail, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

/** Says that what a finding tells of is meant so on this blade, and why: it is not told again. */
export function MeantForm({ finding: { id: finding, where } }: { finding: Pick<Finding, "id" | "where"> }) {
  const { open, rail } = useScreen();
  const meant = useRail((state) => state.meant);
  const [why, setWhy] = useState<string | null>(null);
  const of = `${finding} ${where.side ?? ""}`;
  const setReason = (reason: string | null) =>
    rail.setState({ meant: reason === null ? null : { of, reason } });
  if (meant?.of !== of) return <SmallButton onClick={() => setReason("")}>It is meant so …</SmallButton>;
  const { reason } = meant;
  const put = () => {
    if (reason.trim().length < 3) {
      setWhy("Say why, in a few words.");
      return;
    }
    const { limits } = open.store.getState();
    open.end();
    const all = [...(limits.meant ?? []), { finding, reason: reason.trim() }];
    const refused = whyNot(open.put({ limits: { ...limits, meant: all } }));
    setWhy(refused);
    if (!refused) setReason(null);
  };
  return (
    <form
      className="mt-1 flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <TextBox
        label="Why it is meant so"
        labelled="above"
        className="min-w-72"
        maxLength={300}
        autoFocus
        text={reason}
        why={why}
        onText={(typed) => {
          setReason(typed);
          setWhy(null);
        }}
      />
      <SmallButton onClick={put}>Keep</SmallButton>
      <SmallButton onClick={() => setReason(null)}>Cancel</SmallButton>
    </form>
  );
}
