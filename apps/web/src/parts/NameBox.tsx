import { useState } from "react";
import { TextBox, type TextBoxProps } from "./TextBox.tsx";

/** A name that is put in when the box is left or Enter is pressed; one that is empty is not taken. */
export function NameBox({
  name,
  onName,
  ...props
}: { name: string; onName: (name: string) => void } & Omit<TextBoxProps, "text" | "onText">) {
  const [typed, setTyped] = useState<string | null>(null);
  const put = () => {
    const next = typed?.trim() ?? "";
    if (next !== "" && next !== name) onName(next);
    setTyped(null);
  };
  return (
    <TextBox
      {...props}
      text={typed ?? name}
      why={typed?.trim() === "" ? "It needs a name." : null}
      onText={setTyped}
      onBlur={put}
      onEnter={put}
      onEscape={() => setTyped(null)}
    />
  );
}
