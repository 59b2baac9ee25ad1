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
