import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, done } from "../api/client";
import { Form } from "../form/Form";
import { PasswordField } from "../form/PasswordField";
import { PinField } from "../form/PinField";
import { NOBODY, signedInNow, useSession } from "../session/session";
import { ConfirmPassword } from "./ConfirmPassword";
import { Modal } from "./Modal";
import { SecondFactor } from "./SecondFactor";

/** Who is signed in here: their password, and the way out. */
export function AccountDialog(props: { open: boolean; onClose: () => void }) {
  const session = useSession();
  const queries = useQueryClient();
  const leave = useMutation({
    mutationFn: (everywhere: boolean) =>
      everywhere ? done(api.DELETE("/api/v1/session/all")) : done(api.DELETE("/api/v1/session")),
    onSuccess: () => signedInNow(queries, NOBODY),
  });
  const { person, roles = [] } = session ?? {};
  return (
    <Modal {...props} title={person?.name ?? "Nobody is signed in"}>
      <p className="text-sm text-iron">
        {person?.email} · {roles.join(", ")}
      </p>
      <p className="mt-4 flex flex-wrap gap-3">
        <button type="button" className="act act-main" onClick={() => leave.mutate(false)}>
          Sign out
        </button>
        <button type="button" className="act" onClick={() => leave.mutate(true)}>
          Sign out everywhere
        </button>
      </p>
      <ChangePassword />
      <SetPin />
      <SecondFactor />
      <ConfirmPassword />
    </Modal>
  );
}

function ChangePassword() {
  const [current, setCurrent] = useState("");
  const [password, setPassword] = useState("");
  const change = useMutation({
    mutationFn: () => done(api.PUT("/api/v1/session/password", { body: { current, password } })),
    onSuccess: () => {
      setCurrent("");
      setPassword("");
    },
  });
  return (
    <Form
      label="Change password"
      className="mt-5 space-y-3 border-t border-hair pt-3"
      error={change.error}
      onSubmit={() => change.mutate()}
    >
      <h3>Change password</h3>
      <PasswordField label="So far" value={current} onChange={setCurrent} field="current" />
      <PasswordField
        label="From now on"
        isNew
        value={password}
        onChange={setPassword}
        field="password"
      />
      <button type="submit" className="act" disabled={change.isPending}>
        Change password
      </button>
      {change.isSuccess && (
        <p role="status" className="text-sm text-moss">
          Changed; you are signed out everywhere else.
        </p>
      )}
    </Form>
  );
}

function SetPin() {
  const [current, setCurrent] = useState("");
  const [pin, setPin] = useState("");
  const set = useMutation({
    mutationFn: () => done(api.PUT("/api/v1/session/pin", { body: { current, pin } })),
    onSuccess: () => {
      setCurrent("");
      setPin("");
    },
  });
  return (
    <Form
      label="PIN"
      className="mt-5 space-y-3 border-t border-hair pt-3"
      error={set.error}
      onSubmit={() => set.mutate()}
    >
      <h3>PIN for stations of the floor</h3>
      <PasswordField label="Password" value={current} onChange={setCurrent} field="current" />
      <PinField value={pin} onChange={setPin} />
      <button type="submit" className="act" disabled={set.isPending}>
        Set PIN
      </button>
      {set.isSuccess && (
        <p role="status" className="text-sm text-moss">
          Set; you are known by it at every station.
        </p>
      )}
    </Form>
  );
}
