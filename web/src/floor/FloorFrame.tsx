import { type ReactNode } from "react";
import { Link } from "react-router";
import { discard, useOutbox } from "../api/outbox";
import { useLive } from "../session/live";
import { useSession } from "../session/session";
import { useLeave } from "../session/station";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import { useNow } from "./useNow";

/** The frame of the floor: little, and large. */
export function FloorFrame({ children }: { children: ReactNode }) {
  useLive();
  const format = useFormat();
  const now = useNow();
  const session = useSession();
  const leave = useLeave();
  const { preferences, prefer } = usePreferences();
  const night = preferences.theme === "night";
  return (
    <div className="floor min-h-screen">
      <header className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b-2 border-ink px-4">
        <Link to="/board" className="flex min-h-14 items-center gap-2 font-bold">
          <img src="/peel.svg" alt="" className="h-7 w-7" />
          Board
        </Link>
        <p className="figure text-2xl">{format.time(new Date(now).toISOString())}</p>
        <p className="ml-auto flex items-center gap-x-5">
          <NotYetSent />
          {session?.station && session.person ? (
            <button type="button" className="link min-h-14" onClick={() => leave.mutate()}>
              {session.person.name}, leave
            </button>
          ) : (
            <span>{session?.person?.name}</span>
          )}
          <button
            type="button"
            className="link min-h-14"
            onClick={() => prefer({ theme: night ? "day" : "night" })}
          >
            {night ? "Bright" : "Night"}
          </button>
          <Link to="/" className="link flex min-h-14 items-center">
            Leave the floor
          </Link>
        </p>
      </header>
      <Refusals />
      <main id="content" className="mx-auto max-w-7xl p-4">
        {children}
      </main>
    </div>
  );
}

/** How much is not yet sent and from when, in the corner. */
function NotYetSent() {
  const waiting = useOutbox().filter((one) => !one.refused);
  const format = useFormat();
  const [first] = waiting;
  return (
    <span role="status" className={first ? "figure text-xl text-crust" : "sr-only"}>
      {first
        ? `${waiting.length} not yet sent, from ${format.time(new Date(first.since).toISOString())}`
        : "everything is sent"}
    </span>
  );
}

/** What the server did not take: for a person to look at. */
function Refusals() {
  const refused = useOutbox().filter((one) => one.refused);
  const format = useFormat();
  if (refused.length === 0) return null;
  return (
    <ul role="alert" className="border-b-2 border-stop bg-faint px-4 text-lg">
      {refused.map(({ at, label, refused: why }) => (
        <li key={at} className="flex flex-wrap items-center gap-x-4">
          <span>
            <b className="text-stop">Not recorded:</b> {label}. {format.text(why?.detail ?? "")}
          </span>
          <button type="button" className="link min-h-14" onClick={() => void discard(at)}>
            Discard
          </button>
        </li>
      ))}
    </ul>
  );
}
