import { useEffect } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate } from "react-router";
import { Refusal } from "../contract/client";
import { useSession, useSignOut } from "../data/people";
import { DeviceNotes } from "./DeviceNotes";
import { LookSwitch } from "./LookSwitch";
import { Palette } from "./Palette";
import { Problem, Waiting } from "./Problem";
import { Students } from "./Students";

/** The frame of every screen behind the sign-in: one line at the top, then the screen. */
export function Frame() {
  const session = useSession();
  const navigate = useNavigate();
  const location = useLocation();
  const strange = session.error instanceof Refusal && session.error.status === 401;
  useEffect(() => {
    if (strange) navigate("/sign-in", { replace: true, state: { back: location.pathname } });
  }, [strange, navigate, location.pathname]);

  if (session.isPending || strange) return <Waiting />;
  if (session.error) return <Problem error={session.error} again={() => session.refetch()} />;
  const going = session.data.going?.find(
    (g) => location.pathname.includes(g.ladder) || location.pathname.includes(g.student),
  );
  return (
    <>
      <a className="sr-only focus:not-sr-only" href="#screen">
        Skip to the screen
      </a>
      <header className="no-print flex flex-wrap items-center gap-1 border-b border-line px-3 sm:gap-3 sm:px-6">
        <Link to="/" className="flex min-h-touch items-center gap-2 py-1 font-head text-lg font-semibold">
          <svg viewBox="0 0 32 32" width="26" height="26" aria-hidden="true" className="text-working">
            <path
              d="M10 3v26M22 3v26M10 25h12M10 19.5h12M10 11h12M10 6.5h12"
              fill="none"
              stroke="currentColor"
              strokeWidth="3"
              strokeLinecap="round"
            />
          </svg>
          <span className="max-sm:sr-only md:max-lg:sr-only">Patient Ladder</span>
        </Link>
        <nav
          aria-label="Main"
          className="flex items-center max-md:order-last max-md:w-full max-md:justify-between max-md:text-[0.86rem] max-md:[&>*]:px-1 max-sm:text-[0.78rem] max-sm:[&>*]:px-0.5"
        >
          <NavLink to="/" end className="quiet aria-[current]:decoration-working">
            Today
          </NavLink>
          <NavLink to="/calendar" className="quiet aria-[current]:decoration-working">
            Calendar
          </NavLink>
          <Students />
          <NavLink to="/overview" className="quiet aria-[current]:decoration-working">
            Studio
          </NavLink>
          <NavLink to="/technique" className="quiet aria-[current]:decoration-working">
            Technique
          </NavLink>
          <NavLink to="/library" className="quiet aria-[current]:decoration-working">
            Library
          </NavLink>
          <NavLink to="/settings" className="quiet aria-[current]:decoration-working">
            Ways
          </NavLink>
        </nav>
        <span className="fine ml-auto max-lg:hidden">{session.data.studio}</span>
        <div className="flex items-center max-lg:ml-auto">
          <Palette />
          <LookSwitch />
          <NavLink
            to="/account"
            aria-label="Account"
            className="quiet px-2 aria-[current]:decoration-working"
          >
            <svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true">
              <g fill="none" stroke="currentColor" strokeWidth="2">
                <circle cx="12" cy="8" r="4" />
                <path d="M4 21c1-5 4-7 8-7s7 2 8 7" strokeLinecap="round" />
              </g>
            </svg>
          </NavLink>
          <SignOut />
        </div>
      </header>
      <main id="screen">
        <DeviceNotes />
        {going && (
          <p
            role="note"
            className="no-print mx-4 mt-3 max-w-6xl rounded border-2 border-cliff px-4 py-2 xl:mx-auto"
          >
            {going.words}{" "}
            <Link className="whitespace-nowrap underline underline-offset-4" to={`/student/${going.student}`}>
              Take it back
            </Link>
          </p>
        )}
        {session.data.role === "assistant" && (
          <p className="fine no-print mx-auto max-w-6xl px-4 pt-2 sm:px-6">
            You assist: you can look at everything here, mark and note. Plans, weeks and people are changed by
            the teacher.
          </p>
        )}
        <Outlet />
      </main>
    </>
  );
}

function SignOut() {
  const navigate = useNavigate();
  const out = useSignOut(() => navigate("/sign-in", { replace: true }));
  return (
    <button type="button" className="quiet whitespace-nowrap" onClick={out}>
      Sign out
    </button>
  );
}
