import { useRef, useState } from "react";
import { TextBox, type TextBoxProps } from "./TextBox.tsx";

/** A name, put in as it is typed; an empty one is not taken. Escape puts back the one that stood there. */
export function NameBox({
  name,
  onName,
  ...props
}: { name: string; onName: (name: string) => void } & Omit<TextBoxProps, "text" | "onText">) {
  const [typed, setTyped] = useState<string | null>(null);
  const before = useRef(name);
  const put = (next: string) => {
    if (next !== "" && next !== name) onName(next);
  };
  return (
    <TextBox
      {...props}
      text={typed ?? name}
      why={typed?.trim() === "" ? "It needs a name." : null}
      onFocus={() => {
        before.current = name;
      }}
      onText={(text) => {
        setTyped(text);
        put(text.trim());
      }}
      onBlur={() => setTyped(null)}
      onEscape={() => {
        put(before.current);
        setTyped(null);
      }}
    />
  );
}
