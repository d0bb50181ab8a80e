import { createContext, use, useEffect, useState, type ReactNode } from "react";
import { Refused } from "../api/client";
import { useFormat } from "../units/format";
import { Refusal } from "./Refusal";

interface Refusing {
  refused: Refused | undefined;
  /** Fields that stand there, and say what is wrong with them. */
  fields: Set<string>;
}

const Context = createContext<Refusing | undefined>(undefined);

/** What the server refuses stands at its field, and what has no field after them all. */
export function Faults({ error, children }: { error: unknown; children: ReactNode }) {
  const [fields] = useState(() => new Set<string>());
  const refused = error instanceof Refused ? error : undefined;
  return (
    <Context value={{ refused, fields }}>
      {children}
      <Refusal error={error} placed={(field) => fields.has(field)} />
    </Context>
  );
}

/** What the server refused of a field, by its name there or by the first of several. */
export function useFault(field: string | readonly string[] | undefined): string | undefined {
  const refusing = use(Context);
  const format = useFormat();
  const fields = refusing?.fields;
  const names = field === undefined ? "" : [field].flat().join("\n");
  useEffect(() => {
    if (!fields || !names) return;
    const mine = names.split("\n");
    mine.forEach((name) => fields.add(name));
    return () => mine.forEach((name) => fields.delete(name));
  }, [fields, names]);
  const found = names.split("\n").map((name) => refusing?.refused?.at(name));
  const message = found.find((one) => one !== undefined);
  return message && format.text(message);
}
