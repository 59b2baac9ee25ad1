import type { ReactNode } from "react";

export function PlainButton({
  onClick,
  children,
  kind = "plain",
  type = "button",
  disabled,
  isBusy = false,
}: {
  onClick?: () => void;
  children: ReactNode;
  kind?: "plain" | "main";
  type?: "button" | "submit";
  disabled?: boolean;
  /** Pressed, and at work or waiting for a calculation. It stays in reach of the keys. */
  isBusy?: boolean;
}) {
  const look = kind === "main" ? "bg-deep text-on-deep border-deep" : "bg-sheet border-frame hover:bg-room";
  return (
    <button
      type={type}
      disabled={disabled}
      aria-busy={isBusy || undefined}
      onClick={onClick}
      className={`min-h-9 rounded border px-3 py-1.5 font-semibold disabled:opacity-50 ${look}`}
    >
      {children}
    </button>
  );
}
