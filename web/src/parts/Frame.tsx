import { Popover } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate } from "react-router";
import { Refusal } from "../contract/client";
import { useSession, useSignOut, useStudents } from "../data/people";
import { AddStudent } from "./AddStudent";
import { LookSwitch } from "./LookSwitch";
import { Problem, Waiting } from "./Problem";

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
          <span className="max-sm:sr-only">Patient Ladder</span>
        </Link>
        <nav
          aria-label="Main"
          className="flex items-center max-md:order-last max-md:w-full max-md:justify-between max-md:text-[0.86rem] max-md:[&>*]:px-1"
        >
          <NavLink to="/" end className="quiet aria-[current]:decoration-working">
            Today
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
        <span className="fine ml-auto max-md:hidden">{session.data.studio}</span>
        <div className="flex items-center max-md:ml-auto">
          <LookSwitch />
          <SignOut />
        </div>
      </header>
      <main id="screen">
        <Outlet />
      </main>
    </>
  );
}

function Students() {
  const [open, setOpen] = useState(false);
  const students = useStudents(open);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="quiet">Students</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          className="z-20 max-h-[75vh] w-80 max-w-[95vw] overflow-y-auto rounded-lg border border-line bg-sheet p-2 shadow-lg"
          aria-label="Students"
        >
          {students.isPending && <Waiting />}
          <ul>
            {students.data?.map((s) => (
              <li key={s.ladder}>
                <Link
                  to={`/ladder/${s.ladder}`}
                  onClick={() => setOpen(false)}
                  className="flex min-h-touch items-center justify-between gap-3 rounded px-2 hover:bg-fold"
                >
                  <span className="truncate">{s.name}</span>
                  <span className="fine shrink-0">
                    {s.instrument}, {s.age}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
          <AddStudent onAdded={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function SignOut() {
  const navigate = useNavigate();
  const out = useSignOut(() => navigate("/sign-in", { replace: true }));
  return (
    <button
      type="button"
      className="quiet whitespace-nowrap"
      disabled={out.isPending}
      onClick={() => out.mutate()}
    >
      Sign out
    </button>
  );
}
