import { createBrowserRouter } from "react-router";
import { Failure } from "./parts/Failure";
import { Frame } from "./parts/Frame";
import { Ladder } from "./screens/Ladder";
import { Lesson } from "./screens/Lesson";
import { Piece } from "./screens/Piece";
import { Settings } from "./screens/Settings";
import { SignIn } from "./screens/SignIn";
import { Today } from "./screens/Today";
import { Week } from "./screens/Week";
import { Write } from "./screens/Write";

export const router = createBrowserRouter([
  { path: "/sign-in", Component: SignIn },
  {
    Component: Frame,
    ErrorBoundary: Failure,
    children: [
      { path: "/", Component: Today },
      { path: "/ladder/:ladder", Component: Ladder },
      { path: "/lesson/:ladder", Component: Lesson },
      { path: "/week/:ladder", Component: Week },
      { path: "/piece/:material", Component: Piece },
      { path: "/write", Component: Write },
      { path: "/settings", Component: Settings },
      { path: "*", Component: Failure },
    ],
  },
]);
