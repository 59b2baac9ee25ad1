import { useState } from "react";
import { useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

/** Says that what a finding tells of is meant so on this blade, and why: it is not told again. */
export function MeantForm({ finding }: { finding: string }) {
  const { open } = useScreen();
  const [reason, setReason] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  if (reason === null) return <SmallButton onClick={() => setReason("")}>It is meant so …</SmallButton>;
  const put = () => {
    if (reason.trim().length < 3) {
      setWhy("Say why, in a few words.");
      return;
    }
    const { limits } = open.store.getState();
    open.end();
    const meant = [...(limits.meant ?? []), { finding, reason: reason.trim() }];
    setWhy(whyNot(open.put({ limits: { ...limits, meant } })));
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
