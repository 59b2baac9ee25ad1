import { Link, useRouteError } from "react-router";
import { useTitle } from "../parts/useTitle.ts";

/** Shown where an address leads nowhere, or a page fails: what was typed is still in this browser. */
export function Lost() {
  const error = useRouteError();
  useTitle(error ? "Something went wrong" : "Not found");
  // A page that was built anew since this one was loaded is fetched by loading again.
  const isStale = error instanceof TypeError && /import|fetch|module/i.test(error.message);
  return (
    <div className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl font-bold">{error ? "Something went wrong" : "There is no such page"}</h1>
      <p className="mt-3 text-faint">
        {!error && "The address leads nowhere. The blade may have been deleted."}
        {isStale &&
          "This part of the program could not be fetched. Load the page again; nothing you typed is lost."}
        {error !== undefined &&
          error !== null &&
          !isStale &&
          "A defect in the program stopped the page. Nothing you typed is lost: open the blade again and it comes back."}
      </p>
      <div className="mt-6 flex gap-3">
        <Link to="/" className="rounded bg-deep px-4 py-2 font-semibold text-on-deep">
          To the rack
        </Link>
        {error !== undefined && error !== null && (
          <button
            type="button"
            className="rounded border border-frame px-4 py-2 font-semibold"
            onClick={() => location.reload()}
          >
            Load the page again
          </button>
        )}
      </div>
    </div>
  );
}
