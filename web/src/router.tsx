import { createBrowserRouter } from "react-router";
import { Failure } from "./parts/Failure";
import { Frame } from "./parts/Frame";
import { Waiting } from "./parts/Problem";
import { Close } from "./screens/Close";
import { Ladder } from "./screens/Ladder";
import { Lesson } from "./screens/Lesson";
import { SignIn } from "./screens/SignIn";
import { Today } from "./screens/Today";
import { Week } from "./screens/Week";

export const router = createBrowserRouter([
  { path: "/sign-in", Component: SignIn },
  {
    path: "/home/:token",
    ErrorBoundary: Failure,
    HydrateFallback: Waiting,
    lazy: async () => ({ Component: (await import("./screens/Home")).Home }),
  },
  {
    Component: Frame,
    ErrorBoundary: Failure,
    HydrateFallback: Waiting,
    children: [
      { path: "/", Component: Today },
      { path: "/ladder/:ladder", Component: Ladder },
      { path: "/lesson/:ladder", Component: Lesson },
      { path: "/week/:ladder", Component: Week },
      { path: "/close/:ladder", Component: Close },
      // Loaded when they are opened: a lesson does not wait for them.
      {
        path: "/piece/:material",
        lazy: async () => ({ Component: (await import("./screens/Piece")).Piece }),
      },
      { path: "/write", lazy: async () => ({ Component: (await import("./screens/Write")).Write }) },
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
      { path: "/library", lazy: async () => ({ Component: (await import("./screens/Library")).Library }) },
      { path: "/messages", lazy: async () => ({ Component: (await import("./screens/Messages")).Messages }) },
      { path: "*", Component: Failure },
    ],
  },
]);
