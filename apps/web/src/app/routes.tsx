import { createBrowserRouter, Navigate } from "react-router";
import { Rack } from "../pages/rack/Rack.tsx";
import { Lost } from "./Lost.tsx";
import { Shell } from "./Shell.tsx";

/** The rack stands at once; every other page is fetched when it is gone to. */
export const router = createBrowserRouter([
  {
    path: "/card/:id",
    lazy: async () => ({ Component: (await import("../pages/card/CardRoute.tsx")).CardRoute }),
    errorElement: <Lost />,
    HydrateFallback: Waiting,
  },
  {
    element: <Shell />,
    errorElement: <Lost />,
    HydrateFallback: Waiting,
    children: [
      { path: "/", element: <Rack /> },
      { path: "/runs", lazy: async () => ({ Component: (await import("../pages/runs/Runs.tsx")).Runs }) },
      {
        path: "/runs/:id",
        lazy: async () => ({ Component: (await import("../pages/runs/RunPage.tsx")).RunPage }),
      },
      {
        path: "/stores",
        lazy: async () => ({ Component: (await import("../pages/stores/Stores.tsx")).Stores }),
      },
      {
        path: "/new",
        lazy: async () => ({ Component: (await import("../pages/new/NewBlade.tsx")).NewBlade }),
      },
      { path: "/blades/:id", element: <Navigate to="grind" replace /> },
      {
        path: "/blades/:id/:page",
        lazy: async () => ({ Component: (await import("../pages/blade/BladeRoute.tsx")).BladeRoute }),
      },
      { path: "*", element: <Lost /> },
    ],
  },
]);

function Waiting() {
  return <p className="p-10 text-faint">Loading …</p>;
}
