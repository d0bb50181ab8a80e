import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { Refusal } from "../form/Refusal";
import { PlantTabs } from "../plant/PlantTabs";
import { DataTable, type Column } from "../table/DataTable";
import { PersonForm } from "./PersonForm";
import { ROLES } from "./roles";

const COLUMNS: Column<Schemas["Person"]>[] = [
  { head: "name", of: (one) => one.name },
  { head: "initials", of: (one) => one.initials },
  { head: "e-mail address", of: (one) => one.email },
  { head: "roles", of: (one) => one.roles.map((role) => ROLES[role].name).join(", ") },
  {
    head: "account",
    of: (one) => (!one.active ? "closed" : one.signs_in ? "open" : "no password yet"),
  },
  { head: "PIN", of: (one) => (one.has_pin ? "set" : "–") },
];

const beginner = (): Schemas["PersonInput"] & { id: string } => ({
  id: crypto.randomUUID(),
  name: "",
  initials: "",
  email: "",
  roles: [],
  active: true,
});

/** Everybody with an account, what each may do, and how they come in. */
export function PeoplePage() {
  const { data: people, error } = useQuery({
    queryKey: ["people"],
    queryFn: () => answer(api.GET("/api/v1/people")),
  });
  const [open, setOpen] = useState<Schemas["PersonInput"] & { id: string }>();
  return (
    <>
      <PlantTabs />
      <h1>People</h1>
      <p className="max-w-2xl text-sm text-iron">
        A technologist does everything of the job; the floor sees plans and sheets and records on
        batches, stock and readings; a visitor reads; an administrator sets people and settings.
      </p>
      <Refusal error={error} />
      <div className="mt-4 grid items-start gap-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          <DataTable
            caption="People"
            rows={people}
            columns={COLUMNS}
            rowKey={(one) => one.id}
            empty="Nobody yet."
            act={(one) => (
              <button type="button" className="link text-sm" onClick={() => setOpen(one)}>
                Change
              </button>
            )}
          />
        </div>
        {open ? (
          <PersonForm
            key={open.id}
            person={open}
            known={people?.some((one) => one.id === open.id) ?? false}
            onClose={() => setOpen(undefined)}
          />
        ) : (
          <button type="button" className="act" onClick={() => setOpen(beginner())}>
            Add a person
          </button>
        )}
      </div>
    </>
  );
}
