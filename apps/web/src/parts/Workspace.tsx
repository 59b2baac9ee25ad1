import type { ReactNode } from "react";

/**
 * The two parts of a page: the work, and beside it a column of groups. A tablet held upright has the work above and the groups below
 * it, in two columns.
 */
export function Workspace({
  children,
  aside,
  asideLabel,
  isBusy,
}: {
  children: ReactNode;
  aside: ReactNode;
  asideLabel: string;
  /** What is shown is of before the last change. */
  isBusy?: boolean;
}) {
  return (
    <div className="flex min-h-0 flex-1 max-lg:portrait:flex-col" aria-busy={isBusy}>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:portrait:min-h-[66%]">{children}</div>
      <aside
        aria-label={asideLabel}
        className="w-84 shrink-0 overflow-y-auto border-l border-rule bg-room max-lg:portrait:w-full max-lg:portrait:shrink max-lg:portrait:border-t max-lg:portrait:border-l-0"
      >
        <div className="flex flex-col gap-1.5 max-lg:portrait:block max-lg:portrait:columns-2 max-lg:portrait:gap-1.5 max-lg:portrait:*:mb-1.5 max-lg:portrait:*:break-inside-avoid">
          {aside}
        </div>
      </aside>
    </div>
  );
}
