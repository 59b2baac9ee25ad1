import type { Me } from "@true-spine/core/registry/contract.ts";
import { Moon, Sun } from "lucide-react";
import { useEffect } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigation } from "react-router";
import { useMe } from "../api/door.ts";
import { fetchAhead } from "../parts/later.ts";
import { Notices } from "../parts/Notices.tsx";
import { useSettings } from "./settings.ts";
import { useKeyToSums } from "./useKeyToSums.ts";

const PLACES = [
  { to: "/", name: "Rack" },
  { to: "/runs", name: "Runs" },
  { to: "/knives", name: "Knives" },
  { to: "/trials", name: "Trials" },
  { to: "/stores", name: "Stores" },
  { to: "/sums", name: "Sums" },
  { to: "/shop", name: "Shop" },
] as const;
/** What devices see of them: letting in is the desk's, and with the cards only there is the rack to pick one from. */
const PLACES_OF: Record<Me["role"], readonly (typeof PLACES)[number][]> = {
  desk: PLACES,
  all: PLACES.filter(({ to }) => to !== "/shop"),
  look: PLACES.filter(({ to }) => to !== "/shop"),
  card: PLACES.filter(({ to }) => to === "/"),
};

const DEVICE_WORDS = { all: "a device let in", look: "look only", card: "cards only" } as const;

/** After the page that is gone to: what it asks for itself comes first. */
const AHEAD_AFTER_MS = 2_000;

/** The room: a thin rail at the far left, and the page. `ahead` are pages that are fetched while nothing else is done. */
export function Shell({ ahead }: { ahead: readonly (() => Promise<unknown>)[] }) {
  const { theme, setTheme } = useSettings();
  const { state } = useNavigation();
  const { role } = useMe();
  const { pathname } = useLocation();
  useKeyToSums();
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  useEffect(() => {
    const later = setTimeout(() => fetchAhead(ahead), AHEAD_AFTER_MS);
    return () => clearTimeout(later);
  }, [ahead]);
  const isDark = theme === "dark";
  return (
    <div className="flex h-full">
      <a
        href="#page"
        className="sr-only z-50 rounded bg-deep px-4 py-2 font-semibold text-on-deep focus:not-sr-only focus:absolute focus:top-2 focus:left-2"
      >
        Skip to the page
      </a>
      <nav
        aria-label="Shop"
        className="flex w-13 shrink-0 flex-col items-center border-r border-rule bg-room py-2"
      >
        <Link to="/" aria-label="True Spine, to the rack" className="mb-2 rounded p-1">
          <img src="/mark.svg" alt="" className="size-8" />
        </Link>
        {PLACES_OF[role].map(({ to, name }) => (
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
        {role !== "desk" && (
          <span className="mt-auto px-1 text-center text-[11px] text-faint">{DEVICE_WORDS[role]}</span>
        )}
        <button
          type="button"
          className={`${role === "desk" ? "mt-auto" : ""} rounded p-2 text-faint hover:bg-rule`}
          aria-label={isDark ? "Light theme" : "Dark theme"}
          title={isDark ? "Light theme" : "Dark theme"}
          onClick={() => setTheme(isDark ? "light" : "dark")}
        >
          {isDark ? <Sun className="size-5" aria-hidden /> : <Moon className="size-5" aria-hidden />}
        </button>
      </nav>
      <main
        id="page"
        tabIndex={-1}
        aria-busy={state === "loading" || undefined}
        className="min-w-0 flex-1 outline-none"
      >
        {role === "card" && pathname !== "/" ? <OnlyCards /> : <Outlet />}
      </main>
      <Notices />
    </div>
  );
}

function OnlyCards() {
  return (
    <div className="p-10">
      <p>This device was let in for the cards only. At the desk, under Shop, it can be let in for more.</p>
      <Link to="/" className="mt-4 inline-block rounded bg-deep px-4 py-3 font-semibold text-on-deep">
        To the rack
      </Link>
    </div>
  );
}
