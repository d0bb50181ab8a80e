import { useLocation } from "react-router";
import { Refused } from "../api/client";
import { discard, isTheirs, isToldAt, isUnkept, useOutbox } from "../api/outbox";
import { senderOf, useSession } from "../session/session";
import { useFormat } from "../units/format";
import { mayCome, useUnanswered } from "./useUnanswered";

/** What is not yet recorded and since when, what was refused, and what could not be fetched. */
export function Outbox() {
  const unanswered = useUnanswered();
  const entries = useOutbox();
  const format = useFormat();
  const sender = senderOf(useSession());
  const waits = entries.filter((one) => !one.refused);
  const waiting = waits.filter((one) => isTheirs(one, sender));
  const others = waits.filter((one) => !isTheirs(one, sender));
  const since = waiting[0]?.since;
  const { pathname } = useLocation();
  const refused = entries.filter((one) => one.refused && !isToldAt(one.at, pathname));
  if (waits.length === 0 && refused.length === 0 && !unanswered) return null;
  return (
    <div role="status" className="screen-only border-b border-crust bg-faint px-6 py-2 text-sm">
      {since !== undefined && (
        <p>
          <b className="text-crust">Not yet recorded:</b>{" "}
          {waiting.map((one) => one.label).join(", ")}. Kept here since{" "}
          {format.moment(new Date(since).toISOString())}, and sent again by itself until the server
          has it.
          {waiting.some(isUnkept) && (
            <b className="text-stop">
              {" "}
              The disk of this browser is full: leave this page open until it is sent.
            </b>
          )}
        </p>
      )}
      {others.length > 0 && (
        <p>
          <b className="text-crust">Not yet recorded, of somebody else:</b>{" "}
          {others.map((one) => one.label).join(", ")}. It is sent once they are signed in here
          again.
        </p>
      )}
      {refused.map(({ at, label, refused }) => (
        <p key={at}>
          <b className="text-stop">Refused:</b> {label}: {refused?.detail}.{" "}
          <button type="button" className="link" onClick={() => void discard(at)}>
            Discard
          </button>
        </p>
      ))}
      {unanswered && (
        <p>
          <b className="text-crust">
            {unanswered instanceof Refused
              ? `The server could not answer: ${unanswered.message}.`
              : "The server does not answer."}
          </b>{" "}
          What you see may be old, or something of it missing
          {mayCome(unanswered) ? "; it is asked again by itself" : ""}.
        </p>
      )}
    </div>
  );
}
