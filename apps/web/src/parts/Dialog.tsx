import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";

/** A question that must be answered before going on, or closed with Escape where that is an answer. */
export function Question({
  title,
  isOpen,
  onClose,
  children,
  wide,
}: {
  title: string;
  isOpen: boolean;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <Dialog open={isOpen} onClose={onClose} className="fixed inset-0 z-50">
      <DialogBackdrop className="fixed inset-0 bg-black/40" />
      <div className="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel
          className={`max-h-full w-full overflow-auto rounded-md bg-paper p-6 text-ink shadow-xl ${wide ? "max-w-3xl" : "max-w-md"}`}
        >
          <DialogTitle className="text-lg font-bold">{title}</DialogTitle>
          <div className="mt-4">{children}</div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

export function PlainButton({
  onClick,
  children,
  kind = "plain",
  type = "button",
  disabled,
}: {
  onClick?: () => void;
  children: ReactNode;
  kind?: "plain" | "main";
  type?: "button" | "submit";
  disabled?: boolean;
}) {
  const look = kind === "main" ? "bg-deep text-on-deep border-deep" : "bg-sheet border-frame hover:bg-room";
  return (
    <button
      type={type}
      disabled={disabled}
      onClick={onClick}
      className={`min-h-9 rounded border px-3 py-1.5 font-semibold disabled:opacity-50 ${look}`}
    >
      {children}
    </button>
  );
}
