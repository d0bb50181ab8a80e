import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, done, type Schemas } from "../api/client";
import { Form } from "../form/Form";
import { FieldText } from "../form/FieldText";
import { Refusal } from "../form/Refusal";
import { Select } from "../form/Select";
import { PlantTabs } from "../plant/PlantTabs";
import { ConfirmPassword } from "../shell/ConfirmPassword";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { ROLES } from "./roles";

const KEYS = ["keys"];

const columns = (format: Format): Column<Schemas["ApiKey"]>[] => [
  { head: "comes with it", of: (one) => one.name },
  { head: "role", of: (one) => ROLES[one.role].name },
  { head: "made by", of: (one) => one.made_by },
  { head: "made", of: (one) => one.made_at, show: (one) => format.date(one.made_at) },
  {
    head: "revoked",
    of: (one) => one.revoked_at,
    show: (one) => one.revoked_at != null && format.date(one.revoked_at),
  },
];

const NAMES = Object.entries(ROLES).map(
  ([role, { name }]) => [role as Schemas["PersonRole"], name] as const,
);

/** Keys that machines come with: a laboratory's system, a logger. */
export function KeysPage() {
  const format = useFormat();
  const queries = useQueryClient();
  const { data: keys, error } = useQuery({
    queryKey: KEYS,
    queryFn: () => answer(api.GET("/api/v1/keys")),
  });
  const [name, setName] = useState("");
  const [role, setRole] = useState<Schemas["PersonRole"]>("floor");
  const again = () => queries.invalidateQueries({ queryKey: KEYS });
  const make = useMutation({
    mutationFn: () =>
      answer(
        api.PUT("/api/v1/keys/{key_id}", {
          params: { path: { key_id: crypto.randomUUID() } },
          body: { name, role },
        }),
      ),
    onSuccess: () => {
      setName("");
      return again();
    },
  });
  const revoke = useMutation({
    mutationFn: (key_id: string) =>
      done(api.DELETE("/api/v1/keys/{key_id}", { params: { path: { key_id } } })),
    onSuccess: again,
  });
  return (
    <>
      <PlantTabs />
      <ConfirmPassword />
      <h1>Keys</h1>
      <p className="max-w-2xl text-sm text-iron">
        A machine sends its key with every request, as <code>Authorization: Bearer</code>. It may do
        what its role may, and what it records is recorded under its name.
      </p>
      <Refusal error={error ?? revoke.error} />
      <Form
        label="New key"
        className="mt-4 flex flex-wrap items-end gap-4"
        error={make.error}
        onSubmit={() => make.mutate()}
      >
        <FieldText
          label="What comes with it"
          className="w-64"
          placeholder="laboratory system"
          value={name}
          onChange={setName}
          field="name"
        />
        <Select label="Role" value={role} options={NAMES} onSet={setRole} />
        <button type="submit" className="act act-main" disabled={make.isPending}>
          Make a key
        </button>
      </Form>
      {make.data && (
        <p role="status" className="mt-3 border-l-4 border-crust bg-faint p-3">
          The key of {make.data.name}, shown this once:{" "}
          <code className="font-semibold break-all">{make.data.secret}</code>
        </p>
      )}
      <div className="mt-4">
        <DataTable
          caption="Keys"
          rows={keys}
          columns={columns(format)}
          rowKey={(one) => one.id}
          empty="No keys yet."
          act={(one) =>
            one.revoked_at == null && (
              <button type="button" className="link text-sm" onClick={() => revoke.mutate(one.id)}>
                Revoke
              </button>
            )
          }
        />
      </div>
    </>
  );
}
