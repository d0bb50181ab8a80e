import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, type ReactNode } from "react";
import { SESSION } from "../session/session";

const SignInPage = lazy(() =>
  import("./SignInPage").then(({ SignInPage }) => ({ default: SignInPage })),
);
const AtStation = lazy(() =>
  import("./AtStation").then(({ AtStation }) => ({ default: AtStation })),
);

/** Lets in who is signed in; who is not signs in first, and goes on where they were. */
export function SignedIn({ children }: { children: ReactNode }) {
  const { data, isPending } = useQuery(SESSION);
  if (isPending) return null;
  // A server that does not answer keeps nobody from what is here.
  if (!data || (data.person && !data.station)) return children;
  return (
    <Suspense>
      {data.station ? <AtStation station={data.station}>{children}</AtStation> : <SignInPage />}
    </Suspense>
  );
}
