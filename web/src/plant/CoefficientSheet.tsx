import { type Schemas } from "../api/client";
import { Modal } from "../shell/Modal";
import { Signed } from "../form/Signed";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { useSaveParameters } from "./useSaveParameters";
import { Form } from "../form/Form";

interface Typing {
  value: Schemas["Estimate"];
  off: boolean;
  reason: string;
}

interface Props {
  /** None where the sheet is shut. */
  coefficient: Schemas["CoefficientView"] | undefined;
  onClose: () => void;
}

/** A coefficient as the house has it, and the plant's own with its reason. */
export function CoefficientSheet({ coefficient, onClose }: Props) {
  const house = coefficient?.house;
  return (
    <Modal open={coefficient !== undefined} onClose={onClose} title={house?.name ?? ""}>
      {coefficient && <CoefficientForm key={house?.key} found={coefficient} onClose={onClose} />}
    </Modal>
  );
}

interface FormProps {
  found: Schemas["CoefficientView"];
  onClose: () => void;
}

function CoefficientForm({ found, onClose }: FormProps) {
  const format = useFormat();
  const { house, own } = found;
  const usual = { typical: house.value, low: house.low, high: house.high };
  const key = `ironpeel.coefficient.${house.key}`;
  const [typing, type, forget] = useKept(key, (kept?: Partial<Typing>) => ({
    value: own?.value ?? usual,
    off: own?.off ?? false,
    reason: own?.reason ?? "",
    ...kept,
  }));
  const { value, off, reason } = typing;
  const save = useSaveParameters(
    () => {
      forget();
      onClose();
    },
    { key, as: typing },
  );
  const field = (key: "low" | "typical" | "high", label: string) => (
    <NumberField
      label={label}
      kind="number"
      value={value[key]}
      onSet={(next) => type((now) => ({ value: { ...now.value, [key]: next ?? usual[key] } }))}
      field={`coefficients[0].${key}`}
    />
  );
  return (
    <Form
      className="mt-2"
      error={save.error}
      onSubmit={() =>
        save.mutate({ coefficients: [{ key: house.key, ...value, off, reason }], reason })
      }
    >
      <p className="text-sm text-iron">{house.source}</p>
      <p className="mt-1 text-sm">
        House default {format.plain(house.value)} {house.unit}, {format.plain(house.low)} to{" "}
        {format.plain(house.high)}. A plant value may be {format.plain(found.least)} to{" "}
        {format.plain(found.most)}.
      </p>
      <div className="mt-3 grid grid-cols-3 gap-4">
        {field("low", "Low")}
        {field("typical", `Here, ${house.unit}`)}
        {field("high", "High")}
      </div>
      {found.optional && (
        <label className="mt-3 flex items-center gap-2">
          <input
            type="checkbox"
            checked={off}
            onChange={(event) => type({ off: event.target.checked })}
          />
          Switched off: its effect is left out
        </label>
      )}
      <Signed
        label="Reason for the plant value"
        reason={reason}
        onReason={(reason) => type({ reason })}
        also="coefficients[0].reason"
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
                coefficients_back: [house.key],
                reason: reason || "reset to default",
              })
            }
          >
            Reset to default
          </button>
        )}
      </p>
    </Form>
  );
}
