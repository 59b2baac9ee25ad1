import { Alert } from "../parts/Alert.tsx";
import { SmallButton } from "../parts/Group.tsx";
import type { WorkFailed } from "./asking.ts";

/** Says that something could not be worked out, instead of saying nothing: that would read as all well. */
export function WorkTrouble({
  what,
  trouble,
  onTry,
}: {
  /** At the head of a sentence: "The findings". */
  what: string;
  trouble: WorkFailed | null;
  onTry: () => void;
}) {
  if (!trouble) return null;
  return (
    <Alert>
      {what} could not be worked out. {trouble.message} The blade is as you left it.{" "}
      <SmallButton onClick={onTry}>Try again</SmallButton>
    </Alert>
  );
}
