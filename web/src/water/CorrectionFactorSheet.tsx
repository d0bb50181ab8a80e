import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Refused, type Schemas } from "../api/client";
import { usePlantParameters } from "../dough/usePlantParameters";
import { record, type Entry } from "../api/outbox";
import { Refusal } from "../shell/Refusal";
import { Signed } from "../shell/Signed";
import { Modal } from "../shell/Modal";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import { Quantity } from "../units/Quantity";

type RequirementCheck = Schemas["CorrectionFactor"];

/** Records changes to the plant's numbers, and lets every figure be asked for again. */
export function useSaveNumbers(onDone: () => void, draft?: Entry["draft"]) {
  const numbers = usePlantParameters();
  const queries = useQueryClient();
  const { preferences } = usePreferences();
  return useMutation({
    networkMode: "always",
    mutationFn: ({ reason, ...change }: Partial<Schemas["NumbersInput"]> & { reason: string }) =>
      record<Schemas["NumbersView"]>({
        path: `/api/v1/plant/parameters/revisions/${crypto.randomUUID()}`,
        subject: draft?.key ?? "the plant's numbers",
        ...(draft && { draft }),
        label: "the plant's numbers",
        body: {
          ...change,
          number: (numbers?.revision?.number ?? 0) + 1,
          signed: { by: preferences.name, reason },
        },
      }),
    onSuccess: async () => {
      await queries.invalidateQueries();
      onDone();
    },
    // Somebody else may have been there before: their numbers are looked at, and this sent anew.
    onError: () => queries.invalidateQueries({ queryKey: ["numbers"] }),
  });
}

interface Typing {
  value: Schemas["Estimate"];
  off: boolean;
  reason: string;
}

/** A rule of the build-up as the house has it, and the plant's own with its reason. */
export function CorrectionFactorSheet({
  rule,
  onClose,
}: {
  rule: RequirementCheck | null;
  onClose: () => void;
}) {
  const found = usePlantParameters()?.correction_factors.find((one) => one.rule === rule);
  return (
    <Modal open={rule !== null} onClose={onClose} title={found?.label ?? ""}>
      {found && <RuleForm key={found.rule} found={found} onClose={onClose} />}
    </Modal>
  );
}

function RuleForm({ found, onClose }: { found: Schemas["RuleView"]; onClose: () => void }) {
  const format = useFormat();
  const { house, own } = found;
  const key = `ironpeel.factor.${found.rule}`;
  const [typing, type, forget] = useKept(key, (kept?: Partial<Typing>) => ({
    value: own?.value ?? house,
    off: own?.off ?? false,
    reason: own?.reason ?? "",
    ...kept,
  }));
  const { value, off, reason } = typing;
  const save = useSaveNumbers(
    () => {
      forget();
      onClose();
    },
    { key, as: typing },
  );
  const refused = save.error instanceof Refused ? save.error : undefined;
  const field = (key: "low" | "typical" | "high", label: string) => (
    <Quantity
      label={label}
      kind="number"
      value={value[key]}
      onSet={(next) => type((now) => ({ value: { ...now.value, [key]: next ?? house[key] } }))}
      fault={refused?.at(`correction_factors[0].${key}`)}
    />
  );
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate({ correction_factors: [{ rule: found.rule, ...value, off, reason }], reason });
      }}
    >
      <p className="text-sm text-iron">{found.reason}</p>
      <p className="mt-1 text-sm">
        House default {format.plain(house.typical)} {found.unit}, {format.plain(house.low)} to{" "}
        {format.plain(house.high)}.
      </p>
      <div className="mt-3 grid grid-cols-3 gap-4">
        {field("low", "Low")}
        {field("typical", `Here, ${found.unit}`)}
        {field("high", "High")}
      </div>
      <label className="mt-3 flex items-center gap-2">
        <input
          type="checkbox"
          checked={off}
          onChange={(event) => type({ off: event.target.checked })}
        />
        Switched off: the step is left out
      </label>
      <Signed
        label="Reason for the plant value"
        reason={reason}
        onReason={(reason) => type({ reason })}
        refused={refused}
        also="correction_factors[0].reason"
      />
      <p className="mt-4 flex gap-3">
        <button type="submit" className="act act-main" disabled={save.isPending}>
          Save plant value
        </button>
        {own && (
          <button
            type="button"
            className="act"
            disabled={save.isPending}
            onClick={() =>
              save.mutate({
                rules_back: [found.rule],
                reason: reason || "reset to default",
              })
            }
          >
            Reset to default
          </button>
        )}
      </p>
      <Refusal error={save.error} placed={/^rules\[0\]|^signed/} />
    </form>
  );
}
