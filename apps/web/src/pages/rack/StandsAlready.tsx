import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";

/** A bundle's blade is here already: what is new goes onto it, or it becomes another blade. Nothing is done before somebody has chosen. */
export function StandsAlready({
  name,
  why,
  isBusy,
  onOnto,
  onBeside,
  onClose,
}: {
  name: string;
  why: string;
  isBusy: boolean;
  onOnto: () => void;
  onBeside: () => void;
  onClose: () => void;
}) {
  return (
    <Question title="This blade is here already" isOpen onClose={onClose}>
      <p className="text-faint">{name}</p>
      <p className="mt-2">{why}</p>
      <p className="mt-2 text-sm text-faint">
        Put onto it, what is new follows what stands, and its history keeps both. As another blade it stands
        beside it.
      </p>
      <div className="mt-5 flex flex-wrap justify-end gap-2">
        <PlainButton onClick={onClose} disabled={isBusy}>
          Leave it
        </PlainButton>
        <PlainButton onClick={onBeside} disabled={isBusy}>
          As another blade
        </PlainButton>
        <PlainButton kind="main" onClick={onOnto} disabled={isBusy}>
          {isBusy ? "Taking it in …" : "Put it onto that one"}
        </PlainButton>
      </div>
    </Question>
  );
}
