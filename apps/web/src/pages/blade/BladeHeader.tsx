import type { BladeWithFile } from "@true-spine/core/registry/contract.ts";
import { Download, History, Keyboard, Redo2, Undo2 } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { useStore } from "zustand";
import { useFilePart, useSaveStatus, useScreen } from "../../blade/screen.ts";
import { UnitMenu } from "../../parts/UnitMenu.tsx";
import { saveWords } from "../../saving/words.ts";
import { usePages } from "./pages.ts";

/** Name, status in words, undo and redo, pages in working order, the unit on show. Ten pages fit at 1280 pixels. */
export function BladeHeader({ row, page }: { row: BladeWithFile; page: string }) {
  const { open, id, rail } = useScreen();
  const pages = usePages();
  const canUndo = useStore(open.store.temporal, (past) => past.pastStates.length > 0);
  const canRedo = useStore(open.store.temporal, (past) => past.futureStates.length > 0);
  return (
    <header className="flex h-13 shrink-0 items-center gap-2 border-b border-rule bg-paper px-3">
      <Title row={row} />
      <div className="flex items-center">
        <IconButton label="Undo, Ctrl+Z" onClick={() => open.undo()} disabled={!canUndo}>
          <Undo2 className="size-4.5" aria-hidden />
        </IconButton>
        <IconButton label="Redo, Ctrl+Shift+Z" onClick={() => open.redo()} disabled={!canRedo}>
          <Redo2 className="size-4.5" aria-hidden />
        </IconButton>
        <IconButton label="Revisions" onClick={() => rail.setState({ panel: "history" })}>
          <History className="size-4.5" aria-hidden />
        </IconButton>
        <IconButton
          label="Export: template, drawing, solid, file"
          onClick={() => rail.setState({ panel: "export" })}
        >
          <Download className="size-4.5" aria-hidden />
        </IconButton>
        <IconButton label="Keys and commands, ?" onClick={() => rail.setState({ panel: "keys" })}>
          <Keyboard className="size-4.5" aria-hidden />
        </IconButton>
      </div>
      <nav aria-label="Pages of this blade" className="flex">
        {pages.map(({ path, name }, i) => (
          <Link
            key={path}
            to={`/blades/${id}/${path}`}
            aria-current={path === page ? "page" : undefined}
            className={`rounded px-2.5 py-1.5 max-lg:portrait:px-1 text-sm font-semibold ${path === page ? "bg-deep text-on-deep" : "hover:bg-rule"}`}
          >
            <span
              className={`mr-1 text-xs font-normal max-lg:portrait:hidden ${path === page ? "" : "text-faint"}`}
            >
              {(i + 1) % 10}
            </span>
            {name}
          </Link>
        ))}
      </nav>
      <UnitMenu />
    </header>
  );
}

function Title({ row }: { row: BladeWithFile }) {
  const name = useFilePart((file) => file.name);
  const use = useFilePart((file) => file.use);
  const steel = useFilePart((file) => file.steel);
  const { status, revision, isKept } = useSaveStatus();
  const isTroubled = status === "away" || status === "conflict" || status === "refused";
  return (
    <div className="min-w-36 flex-1">
      <h1 className="truncate text-[17px] leading-5 font-bold">{name}</h1>
      <p className="truncate text-xs text-faint">
        <span role="status" className={isTroubled ? "font-bold text-fix" : ""}>
          {saveWords(status, isKept)}
        </span>{" "}
        · revision {revision} · {[use, steel, row.state].filter(Boolean).join(", ")}
      </p>
    </div>
  );
}

function IconButton({
  label,
  onClick,
  disabled,
  children,
}: {
  label: string;
  onClick: () => void;
  disabled?: boolean;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={onClick}
      disabled={disabled}
      className="rounded p-1.5 hover:bg-rule disabled:opacity-35"
    >
      {children}
    </button>
  );
}
