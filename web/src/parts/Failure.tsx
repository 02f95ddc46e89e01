import { Link, useRouteError } from "react-router";

/** What is shown for an address that does not exist, or when a screen breaks. */
export function Failure() {
  const error = useRouteError();
  return (
    <div className="mx-auto max-w-xl px-4 py-12">
      <h1>{error ? "This screen broke" : "There is nothing here"}</h1>
      <p className="mt-3">
        {error
          ? "What you entered before is saved. Load the page again; if it breaks again, tell us what you did."
          : "The address does not lead to a screen."}
      </p>
      <Link to="/" className="press mt-5">
        Go to Today
      </Link>
    </div>
  );
}
