import { Link } from "react-router";

/** Where a page needs a lot and none is in hand. */
export function NoLot() {
  return (
    <p>
      Take a lot in hand first:{" "}
      <Link className="link" to="/">
        choose one
      </Link>
      .
    </p>
  );
}
