import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, done } from "../api/client";
import { setAsking } from "../api/confirmation";
import { Form } from "../form/Form";
import { PasswordField } from "../form/PasswordField";
import { Modal } from "./Modal";

/** Asks for one's password again before what takes that, in case the screen was left open. */
export function ConfirmPassword() {
  const [answer, setAnswer] = useState<(given: boolean) => void>();
  const [current, type] = useState("");
  useEffect(() => {
    setAsking(
      () =>
        new Promise((resolve) => {
          setAnswer(() => resolve);
        }),
    );
    return () => setAsking(undefined);
  }, []);
  const confirm = useMutation({
    mutationFn: () => done(api.POST("/api/v1/session/confirmation", { body: { current } })),
    onSuccess: () => close(true),
  });
  const close = (given: boolean) => {
    answer?.(given);
    setAnswer(undefined);
    type("");
    confirm.reset();
  };
  return (
    <Modal open={answer !== undefined} onClose={() => close(false)} title="Your password again">
      <Form
        label="Your password again"
        className="mt-3 space-y-3"
        error={confirm.error}
        onSubmit={() => confirm.mutate()}
      >
        <p className="text-sm text-iron">
          You gave it more than a quarter of an hour ago. What you were doing goes on after it.
        </p>
        <PasswordField label="Password" value={current} onChange={type} field="current" />
        <button type="submit" className="act act-main" disabled={confirm.isPending}>
          Go on
        </button>
      </Form>
    </Modal>
  );
}
