import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, done, type Schemas } from "../api/client";
import { Form } from "../form/Form";
import { PinField } from "../form/PinField";
import { Refusal } from "../form/Refusal";
import { NOBODY, signedInNow } from "../session/session";
import { STATION_PEOPLE, useEnter } from "../session/station";

type Person = Schemas["StationPerson"];

const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];
const MOST_DIGITS = 6;

/** Who is at this station: a name, then its PIN. */
export function WhoIsHere({ station }: { station: Schemas["SessionStation"] }) {
  const { data: people, error } = useQuery(STATION_PEOPLE);
  const [chosen, choose] = useState<Person>();
  const queries = useQueryClient();
  const signOut = useMutation({
    mutationFn: () => done(api.DELETE("/api/v1/session")),
    onSuccess: () => signedInNow(queries, NOBODY),
  });
  return (
    <main className="mx-auto max-w-3xl px-4 py-10">
      <p className="flex items-center gap-3">
        <img src="/peel.svg" alt="" className="h-9 w-9" />
        <span className="text-2xl font-bold [font-stretch:118%]">{station.name}</span>
      </p>
      <Refusal error={error ?? signOut.error} />
      {chosen ? (
        <PinPad person={chosen} onBack={() => choose(undefined)} />
      ) : (
        <>
          <h1 className="mt-8">Who is here?</h1>
          {people?.length === 0 && (
            <p className="max-w-xl text-iron">
              Nobody has a PIN yet. An administrator gives one under Plant, People; whoever has a
              password sets their own in their account.
            </p>
          )}
          <ul className="mt-4 grid gap-3 sm:grid-cols-2">
            {people?.map((person) => (
              <li key={person.id}>
                <button
                  type="button"
                  className="flex min-h-20 w-full items-center gap-4 border-[1.5px] border-ink px-5 text-left text-xl font-semibold hover:bg-faint"
                  onClick={() => choose(person)}
                >
                  <span className="w-14 text-iron">{person.initials}</span>
                  {person.name}
                </button>
              </li>
            ))}
          </ul>
          <p className="mt-12 border-t border-hair pt-4 text-sm text-iron">
            This tablet is a station of the floor.{" "}
            <button type="button" className="link" onClick={() => signOut.mutate()}>
              Sign the station out
            </button>
          </p>
        </>
      )}
    </main>
  );
}

function PinPad({ person, onBack }: { person: Person; onBack: () => void }) {
  const [pin, setPin] = useState("");
  const enter = useEnter();
  const demo = useQuery({
    queryKey: ["about"],
    queryFn: () => answer(api.GET("/api/v1/about")),
  }).data?.demo?.accounts.find(({ name }) => name === person.name);
  const type = (text: string) => setPin(text.replace(/\D/g, "").slice(0, MOST_DIGITS));
  const key = "min-h-16 border-[1.5px] border-ink text-2xl font-semibold hover:bg-faint";
  return (
    <Form
      label={`PIN of ${person.name}`}
      className="mt-8 max-w-sm"
      error={enter.error}
      onSubmit={() => enter.mutate({ person, pin }, { onError: () => setPin("") })}
    >
      <h1>{person.name}</h1>
      {demo && <p className="text-sm text-iron">In the demo the PIN is {demo.pin}.</p>}
      <PinField atStation value={pin} onChange={type} />
      <div className="mt-4 grid grid-cols-3 gap-2">
        {DIGITS.map((digit) => (
          <button key={digit} type="button" className={key} onClick={() => type(pin + digit)}>
            {digit}
          </button>
        ))}
        <button type="button" className={key} onClick={() => setPin(pin.slice(0, -1))}>
          <span aria-hidden>⌫</span>
          <span className="sr-only">Take the last digit away</span>
        </button>
        <button type="button" className={key} onClick={() => type(`${pin}0`)}>
          0
        </button>
        <button
          type="submit"
          className="min-h-16 bg-ink text-lg font-semibold text-paper disabled:opacity-50"
          disabled={pin.length < 4 || enter.isPending}
        >
          Go on
        </button>
      </div>
      <button type="button" className="link mt-6 min-h-12" onClick={onBack}>
        Somebody else
      </button>
    </Form>
  );
}
