import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { answer, api, done, type Schemas } from "../api/client";
import { Form } from "../form/Form";
import { FieldText } from "../form/FieldText";
import { PasswordField } from "../form/PasswordField";
import { PinField } from "../form/PinField";
import { useKept } from "../storage/useKept";
import { ROLES } from "./roles";

interface Props {
  id: string;
  /** Their account as it is; none of somebody new. */
  person?: Schemas["Person"] | undefined;
  onClose: () => void;
}

type Typed = Required<Schemas["PersonInput"]>;

/** A person's account: who they are, what they may do, and a password they are given. */
export function PersonForm({ id, person, onClose }: Props) {
  const queries = useQueryClient();
  const begin = useCallback(
    (kept?: Partial<Typed>): Typed => {
      const people = queries.getQueryData<Schemas["Person"][]>(["people"]);
      const is = people?.find((one) => one.id === id);
      return {
        name: is?.name ?? "",
        initials: is?.initials ?? "",
        email: is?.email ?? "",
        roles: is?.roles ?? [],
        active: is?.active ?? true,
        ...kept,
      };
    },
    [id, queries],
  );
  const [is, set, forget] = useKept(`ironpeel.person.${id}`, begin);
  const save = useMutation({
    mutationFn: (body: Typed) =>
      answer(api.PUT("/api/v1/people/{person_id}", { params: { path: { person_id: id } }, body })),
    onSuccess: async (_, sent) => {
      await queries.invalidateQueries({ queryKey: ["people"] });
      forget(sent);
    },
  });
  const field = (key: "name" | "initials" | "email") => ({
    value: is[key],
    onChange: (value: string) => set({ [key]: value }),
    field: key,
  });
  return (
    <div className="space-y-6 border-l border-hair pl-6">
      <Form
        label="Person"
        className="space-y-3"
        error={save.error}
        onSubmit={() => save.mutate(is)}
      >
        <h2>{person ? "Change a person" : "Add a person"}</h2>
        <FieldText label="Name" {...field("name")} />
        <FieldText label="Initials" className="w-32" {...field("initials")} />
        <FieldText label="E-mail address" type="email" {...field("email")} />
        <fieldset>
          <legend className="text-sm text-iron">Roles</legend>
          {(Object.keys(ROLES) as Schemas["PersonRole"][]).map((role) => (
            <label key={role} className="flex items-baseline gap-2 py-0.5">
              <input
                type="checkbox"
                checked={is.roles.includes(role)}
                onChange={({ target }) =>
                  set(({ roles }) => ({
                    roles: target.checked ? [...roles, role] : roles.filter((one) => one !== role),
                  }))
                }
              />
              {ROLES[role].name}
              <span className="text-sm text-iron">{ROLES[role].does}</span>
            </label>
          ))}
        </fieldset>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={is.active}
            onChange={({ target }) => set({ active: target.checked })}
          />
          The account is open
        </label>
        <p className="flex gap-3">
          <button type="submit" className="act act-main" disabled={save.isPending}>
            Save person
          </button>
          <button
            type="button"
            className="act"
            onClick={() => {
              forget();
              onClose();
            }}
          >
            Close
          </button>
        </p>
        {save.isSuccess && (
          <p role="status" className="text-sm text-moss">
            Saved.
          </p>
        )}
      </Form>
      {person && (
        <>
          <GivePassword id={id} />
          <GivePin id={id} />
          {person.has_second_factor && <ForgetSecondFactor id={id} />}
        </>
      )}
    </div>
  );
}

function GivePassword({ id }: { id: string }) {
  const [password, type] = useState("");
  const queries = useQueryClient();
  const params = { path: { person_id: id } };
  const give = useMutation({
    mutationFn: () =>
      done(api.PUT("/api/v1/people/{person_id}/password", { params, body: { password } })),
    onSuccess: () => {
      type("");
      return queries.invalidateQueries({ queryKey: ["people"] });
    },
  });
  const leave = useMutation({
    mutationFn: () => done(api.DELETE("/api/v1/people/{person_id}/sessions", { params })),
  });
  return (
    <Form
      label="A password for them"
      className="space-y-3 border-t border-hair pt-4"
      error={give.error ?? leave.error}
      onSubmit={() => give.mutate()}
    >
      <h3>A password for them</h3>
      <PasswordField label="Password" isNew value={password} onChange={type} field="password" />
      <p className="flex flex-wrap gap-3">
        <button type="submit" className="act" disabled={give.isPending}>
          Set password
        </button>
        <button type="button" className="act" onClick={() => leave.mutate()}>
          Sign out everywhere
        </button>
      </p>
      {(give.isSuccess || leave.isSuccess) && (
        <p role="status" className="text-sm text-moss">
          Done; they sign in anew.
        </p>
      )}
    </Form>
  );
}

function GivePin({ id }: { id: string }) {
  const [pin, type] = useState("");
  const queries = useQueryClient();
  const give = useMutation({
    mutationFn: () =>
      done(
        api.PUT("/api/v1/people/{person_id}/pin", {
          params: { path: { person_id: id } },
          body: { pin },
        }),
      ),
    onSuccess: () => {
      type("");
      return queries.invalidateQueries({ queryKey: ["people"] });
    },
  });
  return (
    <Form
      label="A PIN for them"
      className="space-y-3 border-t border-hair pt-4"
      error={give.error}
      onSubmit={() => give.mutate()}
    >
      <h3>A PIN for stations of the floor</h3>
      <PinField value={pin} onChange={type} />
      <button type="submit" className="act" disabled={give.isPending}>
        Set PIN
      </button>
      {give.isSuccess && (
        <p role="status" className="text-sm text-moss">
          Set.
        </p>
      )}
    </Form>
  );
}

/** For who lost their phone. */
function ForgetSecondFactor({ id }: { id: string }) {
  const queries = useQueryClient();
  const forget = useMutation({
    mutationFn: () =>
      done(
        api.DELETE("/api/v1/people/{person_id}/second-factor", {
          params: { path: { person_id: id } },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["people"] }),
  });
  return (
    <Form
      label="Their authenticator"
      className="space-y-3 border-t border-hair pt-4"
      error={forget.error}
      onSubmit={() => forget.mutate()}
    >
      <h3>Their authenticator</h3>
      <p className="text-sm text-iron">
        Signing in takes its code as well. Whoever lost it has to show you who they are first.
      </p>
      <button type="submit" className="act" disabled={forget.isPending}>
        Ask for no code
      </button>
    </Form>
  );
}
