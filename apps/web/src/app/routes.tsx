import { createBrowserRouter, Navigate } from "react-router";
import { BladeRoute } from "../pages/blade/BladeRoute.tsx";
import { CardRoute } from "../pages/card/Card.tsx";
import { NewBlade } from "../pages/new/NewBlade.tsx";
import { Rack } from "../pages/rack/Rack.tsx";
import { RunPage } from "../pages/runs/RunPage.tsx";
import { Runs } from "../pages/runs/Runs.tsx";
import { Stores } from "../pages/stores/Stores.tsx";
import { Lost, Shell } from "./Shell.tsx";

export const router = createBrowserRouter([
  { path: "/card/:id", element: <CardRoute />, errorElement: <Lost /> },
  {
    element: <Shell />,
    errorElement: <Lost />,
    children: [
      { path: "/", element: <Rack /> },
      { path: "/runs", element: <Runs /> },
      { path: "/runs/:id", element: <RunPage /> },
      { path: "/stores", element: <Stores /> },
      { path: "/new", element: <NewBlade /> },
      { path: "/blades/:id", element: <Navigate to="grind" replace /> },
      { path: "/blades/:id/:page", element: <BladeRoute /> },
      { path: "*", element: <Lost /> },
    ],
  },
]);
