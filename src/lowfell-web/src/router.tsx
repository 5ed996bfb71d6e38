import { createBrowserRouter, type LoaderFunctionArgs, type RouteObject } from "react-router";
import { cache } from "./api/cache";
import { overviewQuery, workshopsQuery, zoneQuery } from "./api/queries";
import { BenchShell } from "./BenchShell";
import { Shell } from "./Shell";
import { Home } from "./Home";
import { Lost } from "./kit/Lost";
import { NotHere } from "./kit/NotHere";
import { role } from "./kit/role";
import { views } from "./views";

/** What a view will ask for first is read while its bundle is on the way. */
function readAhead({ params }: LoaderFunctionArgs) {
  void cache.prefetchQuery(workshopsQuery);
  if (params["setId"]) void cache.prefetchQuery(overviewQuery(params["setId"]));
  if (params["zoneId"]) void cache.prefetchQuery(zoneQuery(params["zoneId"]));
  return null;
}

/** A bare address mostly leads to the set that was open last. */
function readAheadOfLast() {
  const last = localStorage.getItem("lowfell.set");
  void cache.prefetchQuery(workshopsQuery);
  if (last) void cache.prefetchQuery(overviewQuery(last));
  return null;
}

/** All that another device gets: the bench, without a way to anywhere else. */
const elsewhere: RouteObject[] = [
  {
    path: "/",
    element: <BenchShell />,
    errorElement: <Lost />,
    children: views.filter((v) => v.id === "bench").map((v) => ({ path: v.path, lazy: v.load })),
  },
];

// Each view is a bundle of its own.
const here: RouteObject[] = [
  {
    path: "/",
    element: <Shell />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <Home />, loader: readAheadOfLast },
      ...views.map((v) => ({ path: v.path, lazy: v.load, loader: readAhead })),
      {
        path: "*",
        element: <NotHere what="Lowfell has no page at this address." to="/" words="Open the last set" />,
      },
    ],
  },
];

export const router = createBrowserRouter(role ? elsewhere : here);
