import { Link } from "react-router";

export function ErrorPage() {
  return (
    <div className="mx-auto max-w-xl py-16">
      <h1>This address leads nowhere</h1>
      <p className="mt-2">
        It may have been cut short when it was copied.{" "}
        <Link to="/" className="link">
          Back to the start
        </Link>
        , where the products, lots and planned batches are.
      </p>
    </div>
  );
}
