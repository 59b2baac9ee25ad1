import { useRef } from "react";
import { SmallButton } from "./Group.tsx";
import { PlainButton } from "./PlainButton.tsx";

/** Asks for a file. The browser's own box is there for keys and readers; what is seen is a button like any other. */
export function FileBox({
  label,
  words,
  accept,
  disabled,
  size = "usual",
  onPick,
}: {
  /** What the file is, for readers. */
  label: string;
  /** On the button. */
  words: string;
  accept: string;
  disabled?: boolean;
  size?: "usual" | "small";
  onPick: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      {size === "small" ? (
        <SmallButton onClick={() => input.current?.click()}>{words}</SmallButton>
      ) : (
        <PlainButton onClick={() => input.current?.click()} disabled={disabled}>
          {words}
        </PlainButton>
      )}
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        tabIndex={-1}
        disabled={disabled}
        className="sr-only"
        onChange={(event) => {
          const file = event.currentTarget.files?.[0];
          event.currentTarget.value = "";
          if (file) onPick(file);
        }}
      />
    </>
  );
}
