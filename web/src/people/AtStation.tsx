import { useQuery } from "@tanstack/react-query";
import { useEffect, type ReactNode } from "react";
import type { Schemas } from "../api/client";
import { useSession } from "../session/session";
import { isHere, STATION_PEOPLE, useLeave } from "../session/station";
import { stored, store } from "../storage/stored";
import { WhoIsHere } from "./WhoIsHere";

interface Props {
  station: Schemas["SessionStation"];
  children: ReactNode;
}

/** A tablet of the floor: whoever is at it says so, and goes by touching it no longer. */
export function AtStation({ station, children }: Props) {
  const person = useSession()?.person;
  // Known before the connection is lost: somebody else may come then.
  useQuery(STATION_PEOPLE);
  const known = isHere(person?.id);
  const { mutate: leave } = useLeave();
  // Whom the server still takes to be here went while it could not be told.
  const went = Boolean(person) && !known;
  useEffect(() => {
    if (went) leave();
  }, [went, leave]);
  if (!person || !known) return <WhoIsHere station={station} />;
  return (
    <>
      <LeaveWhenIdle minutes={station.idle_minutes} />
      {children}
    </>
  );
}

const TOUCHED = "ironpeel.touched";
const LOOK_EVERY_MS = 5000;

function LeaveWhenIdle({ minutes }: { minutes: number }) {
  const { mutate: leave } = useLeave();
  useEffect(() => {
    let touched = stored<{ at: number }>(TOUCHED)?.at ?? Date.now();
    const touch = () => {
      touched = Date.now();
      store(TOUCHED, { at: touched });
    };
    const look = () => {
      if (Date.now() - touched >= minutes * 60_000) leave();
    };
    look();
    const every = setInterval(look, LOOK_EVERY_MS);
    window.addEventListener("pointerdown", touch);
    window.addEventListener("keydown", touch);
    return () => {
      clearInterval(every);
      window.removeEventListener("pointerdown", touch);
      window.removeEventListener("keydown", touch);
    };
  }, [minutes, leave]);
  return null;
}
