import { Link, useLocation, useRouteError } from "react-router";

/** What stands in a view's place when the view itself failed: the rest of the program goes on. */
export function ViewFault() {
  const error = useRouteError();
  const { search } = useLocation();
  return (
    <div className="mx-auto max-w-xl py-16" role="alert">
      <h1>This view failed</h1>
      <p className="mt-2">
        The fault is the program's own: {error instanceof Error ? error.message : "unknown"}. What
        was recorded or typed is kept.
      </p>
      <p className="mt-4 flex gap-3">
        <button type="button" className="act act-main" onClick={() => window.location.reload()}>
          Try it again
        </button>
        <Link className="act" to={{ pathname: "/", search }}>
          Back to the start
        </Link>
      </p>
    </div>
  );
}
