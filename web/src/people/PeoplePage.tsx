import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { Refusal } from "../form/Refusal";
import { PlantTabs } from "../plant/PlantTabs";
import { ConfirmPassword } from "../shell/ConfirmPassword";
import { useScenario } from "../scenario/ScenarioProvider";
import { DataTable, type Column } from "../table/DataTable";
import { PersonForm } from "./PersonForm";
import { ROLES } from "./roles";

const COLUMNS: Column<Schemas["Person"]>[] = [
  { head: "name", of: (one) => one.name },
  { head: "initials", of: (one) => one.initials },
  { head: "e-mail address", of: (one) => one.email },
  { head: "roles", of: (one) => one.roles.map((role) => ROLES[role].name).join(", ") },
  { head: "account", of: (one) => (one.active ? "open" : "closed") },
  {
    head: "comes in by",
    of: (one) =>
      [
        one.signs_in ? "password" : "no password yet",
        one.has_second_factor && "code",
        one.has_pin && "PIN",
      ]
        .filter(Boolean)
        .join(", "),
  },
];

/** Everybody with an account, what each may do, and how they come in. */
export function PeoplePage() {
  const { data: people, error } = useQuery({
    queryKey: ["people"],
    queryFn: () => answer(api.GET("/api/v1/people")),
  });
  const { search, show } = useScenario();
  const open = new URLSearchParams(search).get("person");
  return (
    <>
      <PlantTabs />
      <ConfirmPassword />
      <h1>People</h1>
      <p className="max-w-2xl text-sm text-iron">
        A technologist does everything of the job; the floor sees plans and sheets and records on
        batches, stock and readings; a visitor reads; an administrator sets people and settings.
      </p>
      <Refusal error={error} />
      <div className="mt-4 grid grid-cols-1 items-start gap-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          <DataTable
            caption="People"
            rows={people}
            columns={COLUMNS}
            rowKey={(one) => one.id}
            empty="Nobody yet."
            act={(one) => (
              <button
                type="button"
                className="link text-sm"
                onClick={() => show({ person: one.id })}
              >
                Change
              </button>
            )}
          />
        </div>
        {open && people ? (
          <PersonForm
            key={open}
            id={open}
            person={people.find((one) => one.id === open)}
            onClose={() => show({ person: null })}
          />
        ) : (
          <button
            type="button"
            className="act"
            onClick={() => show({ person: crypto.randomUUID() })}
          >
            Add a person
          </button>
        )}
      </div>
    </>
  );
}
