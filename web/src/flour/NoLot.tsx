import { Link } from "react-router";

/** Where a page needs a lot and none is selected. */
export function NoLot() {
  return (
    <p>
      Select a lot first:{" "}
      <Link className="link" to="/">
        choose one
      </Link>
      .
    </p>
  );
}
