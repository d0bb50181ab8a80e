import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, done } from "../api/client";
import { CodeField } from "../form/CodeField";
import { Form } from "../form/Form";

const WHETHER = ["session", "second factor"];

/** A code of an authenticator at each sign-in, beside the password. */
export function SecondFactor() {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: WHETHER });
  const { data } = useQuery({
    queryKey: WHETHER,
    queryFn: () => answer(api.GET("/api/v1/session/second-factor")),
  });
  const offer = useMutation({
    mutationFn: () => answer(api.POST("/api/v1/session/second-factor")),
  });
  const remove = useMutation({
    mutationFn: () => done(api.DELETE("/api/v1/session/second-factor")),
    onSuccess: again,
  });
  return (
    <section aria-labelledby="second-factor" className="mt-5 space-y-3 border-t border-hair pt-3">
      <h3 id="second-factor">Second factor</h3>
      {data?.set ? (
        <>
          <p>Signing in takes a code of your authenticator as well.</p>
          <button type="button" className="act" onClick={() => remove.mutate()}>
            Ask for no code
          </button>
        </>
      ) : offer.data ? (
        <SetSecondFactor
          {...offer.data}
          onSet={() => {
            offer.reset();
            return again();
          }}
        />
      ) : (
        <>
          <p className="text-sm text-iron">
            An authenticator on a phone shows a code that goes with the password; good for whoever
            makes accounts.
          </p>
          <button type="button" className="act" onClick={() => offer.mutate()}>
            Set up an authenticator
          </button>
        </>
      )}
    </section>
  );
}

interface Offer {
  secret: string;
  picture: string;
  onSet: () => Promise<void>;
}

function SetSecondFactor({ secret, picture, onSet }: Offer) {
  const [code, type] = useState("");
  const set = useMutation({
    mutationFn: () => done(api.PUT("/api/v1/session/second-factor", { body: { secret, code } })),
    onSuccess: onSet,
  });
  return (
    <Form
      label="Second factor"
      className="grid grid-cols-[9rem_minmax(0,1fr)] items-start gap-4"
      error={set.error}
      onSubmit={() => set.mutate()}
    >
      <img
        className="w-36 bg-white p-1"
        alt="The secret, to be scanned by an authenticator"
        src={`data:image/svg+xml,${encodeURIComponent(picture)}`}
      />
      <div className="space-y-3">
        <p>
          Scan it, or type <code className="break-all select-all">{secret}</code>, then type the
          code that is shown.
        </p>
        <CodeField value={code} onChange={type} />
        <button type="submit" className="act" disabled={set.isPending}>
          Ask for a code from now on
        </button>
      </div>
    </Form>
  );
}
