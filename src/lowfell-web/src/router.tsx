import { createBrowserRouter, Navigate } from "react-router";
import { Shell } from "./Shell";
import { Home } from "./Home";
import { Lost } from "./kit/Lost";

// Each view is a bundle of its own.
export const router = createBrowserRouter([
  {
    path: "/",
    element: <Shell />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <Home /> },
      { path: "plan/:setId/:zoneId?", lazy: () => import("./features/plan/PlanView") },
      { path: "remarks/:setId", lazy: () => import("./features/remarks/RemarksView") },
      { path: "pots/:setId", lazy: () => import("./features/pots/PotsView") },
      { path: "stock/:workshopId", lazy: () => import("./features/stock/StockView") },
      { path: "house/:workshopId", lazy: () => import("./features/house/HouseRulesView") },
      { path: "table/:setId/:designId?", lazy: () => import("./features/table/TableView") },
      { path: "shelf/:workshopId/:materialId?", lazy: () => import("./features/shelf/ShelfView") },
      { path: "start/:workshopId", lazy: () => import("./features/start/StartView") },
      { path: "*", element: <Navigate to="/" replace /> },
    ],
  },
]);
