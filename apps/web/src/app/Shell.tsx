import { Moon, Sun } from "lucide-react";
import { useEffect } from "react";
import { Link, NavLink, Outlet, useRouteError } from "react-router";
import { Notices } from "../parts/Notices.tsx";
import { useSettings } from "./settings.ts";

/** The room: a thin rail at the far left, and the page. */
export function Shell() {
  const { theme, setTheme } = useSettings();
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  const isDark = theme === "dark";
  return (
    <div className="flex h-full">
      <nav
        aria-label="Shop"
        className="flex w-13 shrink-0 flex-col items-center border-r border-rule bg-room py-2"
      >
        <Link to="/" aria-label="True Spine, to the rack" className="mb-2 rounded p-1">
          <img src="/mark.svg" alt="" className="size-8" />
        </Link>
        {[
          { to: "/", name: "Rack" },
          { to: "/runs", name: "Runs" },
          { to: "/stores", name: "Stores" },
        ].map(({ to, name }) => (
          <NavLink
            key={to}
            to={to}
            className={({ isActive }) =>
              `mb-1 w-12 rounded px-1 py-2 text-center text-xs font-semibold ${isActive ? "bg-deep text-on-deep" : "text-faint hover:bg-rule"}`
            }
          >
            {name}
          </NavLink>
        ))}
        <button
          type="button"
          className="mt-auto rounded p-2 text-faint hover:bg-rule"
          aria-label={isDark ? "Light paper" : "Dark shop"}
          title={isDark ? "Light paper" : "Dark shop"}
          onClick={() => setTheme(isDark ? "light" : "dark")}
        >
          {isDark ? <Sun className="size-5" aria-hidden /> : <Moon className="size-5" aria-hidden />}
        </button>
      </nav>
      <main className="min-w-0 flex-1">
        <Outlet />
      </main>
      <Notices />
    </div>
  );
}

/** Shown where an address leads nowhere, or a page fails: what was typed is still in this browser. */
export function Lost() {
  const error = useRouteError();
  return (
    <div className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl font-bold">{error ? "This page has stumbled" : "Nothing lies here"}</h1>
      <p className="mt-3 text-faint">
        {error
          ? "A defect in the program stopped the page. Nothing you typed is lost: open the blade again and it comes back."
          : "The address leads nowhere. The blade may have been thrown away."}
      </p>
      <Link to="/" className="mt-6 inline-block rounded bg-deep px-4 py-2 font-semibold text-on-deep">
        To the rack
      </Link>
    </div>
  );
}
