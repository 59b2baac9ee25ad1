import type { ComponentType } from "react";
import { createBrowserRouter, Navigate } from "react-router";
import { Rack } from "../pages/rack/Rack.tsx";
import { Lost } from "./Lost.tsx";
import { Shell } from "./Shell.tsx";

/** Every page but the rack, which stands at once. */
const PAGES = {
  "/runs": async () => (await import("../pages/runs/Runs.tsx")).Runs,
  "/runs/:id": async () => (await import("../pages/runs/RunPage.tsx")).RunPage,
  "/knives": async () => (await import("../pages/knives/Knives.tsx")).Knives,
  "/trials": async () => (await import("../pages/trials/Trials.tsx")).Trials,
  "/stores": async () => (await import("../pages/stores/Stores.tsx")).Stores,
  "/shop": async () => (await import("../pages/shop/ShopPage.tsx")).ShopPage,
  "/sums/:key?": async () => (await import("../pages/sums/SumsPage.tsx")).SumsPage,
  "/new": async () => (await import("../pages/new/NewBlade.tsx")).NewBlade,
  "/blades/:id/:page": async () => (await import("../pages/blade/BladeRoute.tsx")).BladeRoute,
} satisfies Record<string, () => Promise<ComponentType>>;

export const router = createBrowserRouter([
  {
    path: "/card/:id",
    lazy: async () => ({ Component: (await import("../pages/card/CardRoute.tsx")).CardRoute }),
    errorElement: <AloneLost />,
    HydrateFallback: Waiting,
  },
  {
    element: <Shell ahead={Object.values(PAGES)} />,
    errorElement: <AloneLost />,
    HydrateFallback: Waiting,
    children: [
      {
        // A page that fails leaves the way to the others standing.
        errorElement: <Lost />,
        children: [
          { path: "/", element: <Rack /> },
          { path: "/blades/:id", element: <Navigate to="grind" replace /> },
          ...Object.entries(PAGES).map(([path, load]) => ({
            path,
            lazy: async () => ({ Component: await load() }),
          })),
          { path: "*", element: <Lost /> },
        ],
      },
    ],
  },
]);

/** Where not even the shell stands. */
function AloneLost() {
  return (
    <main>
      <Lost />
    </main>
  );
}

function Waiting() {
  return <p className="p-10 text-faint">Loading …</p>;
}
