import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "../shell/useScenarioContext";
import { VERDICT } from "../shell/verdict";
import { Select } from "../form/Select";

/** The lot of one of several flours: the main one's by name, another's to choose. */
export function OtherLot({ name }: { name: string }) {
  const { lot, others } = useScenarioContext();
  const { change } = useScenario();
  const other = others.find((one) => one.flour.name === name);
  if (!other) return lot?.flour.name === name ? lot.code : null;
  if (other.lots.length === 0) return <span className="text-stop">no lot of it on record</span>;
  const choose = (id: string) => {
    const ofIt = [...other.lots.map((one) => one.id), other.lot?.id];
    change(({ others }) => ({ others: [...others.filter((one) => !ofIt.includes(one)), id] }));
  };
  // One that was chosen may be older than those the list begins with.
  const older = other.lots.some((one) => one.id === other.lot?.id) ? undefined : other.lot;
  return (
    <Select
      label={`Lot of ${name}`}
      place="hidden"
      className={other.lot ? undefined : "text-stop"}
      value={other.lot?.id ?? ""}
      none="none may be planned: choose"
      options={[
        ...(older ? [[older.id, older.code] as const] : []),
        ...other.lots.map(
          (one) => [one.id, `${one.code} ${one.verdict ? VERDICT[one.verdict].mark : ""}`] as const,
        ),
      ]}
      onSet={choose}
    />
  );
}
