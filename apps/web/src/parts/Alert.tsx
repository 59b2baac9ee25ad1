import type { ReactNode } from "react";

/** Something that must be read: what went wrong, beside what it is about. `id` ties it to its box. */
export function Alert({
  id,
  children,
  className = "",
}: {
  id?: string;
  children: ReactNode;
  className?: string;
}) {
  return (
    <p id={id} role="alert" className={`text-xs text-fix ${className}`}>
      {children}
    </p>
  );
}
