import { createBrowserRouter } from "react-router";
import { Failure } from "./parts/Failure";
import { Frame } from "./parts/Frame";
import { Waiting } from "./parts/Problem";
import { ByLink } from "./screens/ByLink";
import { Lesson } from "./screens/Lesson";
import { SignIn } from "./screens/SignIn";
import { Today } from "./screens/Today";

const ladder = () => import("./screens/Ladder");
const week = () => import("./screens/Week");
const close = () => import("./screens/Close");

/** Loads what a teacher opens next, so that it is on the device before the connection goes. */
export const loadAhead = () => Promise.all([ladder(), week(), close()]);

export const router = createBrowserRouter([
  { path: "/sign-in", Component: SignIn },
  { path: "/new-password", element: <ByLink kind="recovery" /> },
  { path: "/invitation", element: <ByLink kind="invitation" /> },
  {
    Component: Frame,
    ErrorBoundary: Failure,
    HydrateFallback: Waiting,
    children: [
      { path: "/", Component: Today },
      { path: "/lesson/:ladder", Component: Lesson },
      // Loaded when they are opened, or in a quiet moment before: a lesson does not wait for them.
      { path: "/ladder/:ladder", lazy: async () => ({ Component: (await ladder()).Ladder }) },
      { path: "/week/:ladder", lazy: async () => ({ Component: (await week()).Week }) },
      { path: "/close/:ladder", lazy: async () => ({ Component: (await close()).Close }) },
      {
        path: "/piece/:material",
        lazy: async () => ({ Component: (await import("./screens/Piece")).Piece }),
      },
      { path: "/write", lazy: async () => ({ Component: (await import("./screens/Write")).Write }) },
      { path: "/account", lazy: async () => ({ Component: (await import("./screens/Account")).Account }) },
      { path: "/settings", lazy: async () => ({ Component: (await import("./screens/Settings")).Settings }) },
      { path: "/overview", lazy: async () => ({ Component: (await import("./screens/Overview")).Overview }) },
      { path: "/setup/:ladder", lazy: async () => ({ Component: (await import("./screens/Setup")).Setup }) },
      { path: "/plan/:ladder", lazy: async () => ({ Component: (await import("./screens/Plan")).Plan }) },
      {
        path: "/technique",
        lazy: async () => ({ Component: (await import("./screens/Technique")).Technique }),
      },
      {
        path: "/technique/scale",
        lazy: async () => ({ Component: (await import("./screens/Scale")).Scale }),
      },
      { path: "/calendar", lazy: async () => ({ Component: (await import("./screens/Calendar")).Calendar }) },
      {
        path: "/student/:student",
        lazy: async () => ({ Component: (await import("./screens/Student")).Student }),
      },
      {
        path: "/not-entered",
        lazy: async () => ({ Component: (await import("./screens/NotEntered")).NotEntered }),
      },
      { path: "/past/:ladder", lazy: async () => ({ Component: (await import("./screens/Past")).Past }) },
      {
        path: "/progress/:ladder",
        lazy: async () => ({ Component: (await import("./screens/Progress")).Progress }),
      },
      { path: "/year", lazy: async () => ({ Component: (await import("./screens/Year")).Year }) },
      {
        path: "/programme",
        lazy: async () => ({ Component: (await import("./screens/Programme")).Programme }),
      },
      { path: "/reports", lazy: async () => ({ Component: (await import("./screens/Reports")).Reports }) },
      {
        path: "/report/:ladder/:report",
        lazy: async () => ({ Component: (await import("./screens/Report")).Report }),
      },
      {
        path: "/meeting/:ladder",
        lazy: async () => ({ Component: (await import("./screens/Meeting")).Meeting }),
      },
      { path: "/known/:ladder", lazy: async () => ({ Component: (await import("./screens/Known")).Known }) },
      { path: "/library", lazy: async () => ({ Component: (await import("./screens/Library")).Library }) },
      { path: "/messages", lazy: async () => ({ Component: (await import("./screens/Messages")).Messages }) },
      { path: "*", Component: Failure },
    ],
  },
]);
