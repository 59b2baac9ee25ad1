import { X } from "lucide-react";
import { create } from "zustand";

interface Notice {
  id: number;
  words: string;
  undo?: () => void;
}

interface NoticeBoard {
  notices: Notice[];
  tell(words: string, undo?: () => void): void;
  dismiss(id: number): void;
}

const SHOWN_FOR_MS = 12_000;
let next = 1;

/** Small words at the foot of the page: what was done, with its undo. */
export const useNotices = create<NoticeBoard>()((set, get) => ({
  notices: [],
  tell: (words, undo) => {
    const id = next++;
    set({ notices: [...get().notices.slice(-2), { id, words, undo }] });
    setTimeout(() => get().dismiss(id), SHOWN_FOR_MS);
  },
  dismiss: (id) => set({ notices: get().notices.filter((notice) => notice.id !== id) }),
}));

/** @param isLarge for a page that is worked at arm's length, with gloves on */
export function Notices({ isLarge = false }: { isLarge?: boolean }) {
  const { notices, dismiss } = useNotices();
  const size = isLarge ? "min-h-16 min-w-16 px-4" : "px-2 py-1";
  return (
    <div
      role="status"
      className="pointer-events-none fixed inset-x-0 bottom-16 z-40 flex flex-col items-center gap-2"
    >
      {notices.map(({ id, words, undo }) => (
        <div
          key={id}
          className="pointer-events-auto flex items-center gap-3 rounded bg-ink px-4 py-2 text-room shadow-lg"
        >
          <span>{words}</span>
          {undo && (
            <button
              type="button"
              className={`rounded font-semibold underline ${size}`}
              onClick={() => {
                undo();
                dismiss(id);
              }}
            >
              Undo
            </button>
          )}
          <button
            type="button"
            aria-label="Dismiss"
            className={`grid place-items-center rounded ${size}`}
            onClick={() => dismiss(id)}
          >
            <X className={isLarge ? "size-6" : "size-4"} aria-hidden />
          </button>
        </div>
      ))}
    </div>
  );
}
