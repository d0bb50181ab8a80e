import { useState } from "react";
import { Modal } from "../shell/Modal";
import { usePreferences } from "../units/preferences";

interface Props {
  title: string;
  /** Of the number: °C as the station shows it. */
  unit: string;
  /** Whether it may be below nought. */
  signed?: boolean;
  start?: string;
  confirm?: string;
  /** Another way to say it. */
  other?: { name: string; onPress: () => void };
  /** Something that reads it, and the number it shows. */
  instrument?: { name: string; read: () => Promise<number> };
  onClose: () => void;
  onEnter: (value: number) => void;
}

const ROWS = ["7", "8", "9", "4", "5", "6", "1", "2", "3"];

/** A number by the thumb, in the unit the station is set to; what is entered is the stored unit. */
export function Keypad({
  title,
  unit,
  signed,
  start = "",
  confirm,
  other,
  instrument,
  onClose,
  onEnter,
}: Props) {
  const { preferences } = usePreferences();
  const [typed, setTyped] = useState(start);
  const { mark } = preferences;
  const inF = unit === "°C" && preferences.temperature === "F";
  const number = Number(typed.replace(mark, "."));
  const usable = typed !== "" && typed !== "-" && Number.isFinite(number);
  const press = (key: string) =>
    setTyped((now) => {
      if (key === mark && now.includes(mark)) return now;
      return now.length < 9 ? now + key : now;
    });
  const enter = () => {
    if (usable) onEnter(inF ? Number(((number - 32) / 1.8).toFixed(2)) : number);
  };
  return (
    <Modal open onClose={onClose} title={title}>
      <form
        aria-label={title}
        onSubmit={(event) => {
          event.preventDefault();
          enter();
        }}
      >
        <p className="flex items-baseline gap-2 border-b-2 border-ink py-2">
          <input
            aria-label={title}
            className="figure w-full bg-transparent text-5xl outline-none"
            inputMode="none"
            autoComplete="off"
            autoFocus
            value={typed}
            onChange={(event) => setTyped(event.target.value.replace(/[^\d.,-]/g, "").slice(0, 9))}
          />
          <span className="text-2xl text-iron">{inF ? "°F" : unit}</span>
        </p>
        {instrument && (
          <button
            type="button"
            className="link mr-6 min-h-14 text-lg"
            onClick={() => {
              const show = (value: number) =>
                setTyped(
                  String(inF ? Number((value * 1.8 + 32).toFixed(1)) : value).replace(".", mark),
                );
              // Where it does not answer, the thumb does.
              void instrument.read().then(show, () => undefined);
            }}
          >
            {instrument.name}
          </button>
        )}
        {other && (
          <button type="button" className="link min-h-14 text-lg" onClick={other.onPress}>
            {other.name}
          </button>
        )}
        <div className="mt-3 grid grid-cols-3 gap-2">
          {ROWS.map((key) => (
            <Key key={key} name={key} onPress={() => press(key)} />
          ))}
          {signed ? (
            <Key
              name="±"
              onPress={() => setTyped((now) => (now.startsWith("-") ? now.slice(1) : `-${now}`))}
            />
          ) : (
            <Key name="Clear" onPress={() => setTyped("")} />
          )}
          <Key name="0" onPress={() => press("0")} />
          <Key name={mark} onPress={() => press(mark)} />
        </div>
        <div className="mt-2 grid grid-cols-3 gap-2">
          <Key name="Delete" onPress={() => setTyped((now) => now.slice(0, -1))} />
          <button
            type="submit"
            className="act act-main col-span-2 min-h-16 text-2xl"
            disabled={!usable}
          >
            {confirm ?? "Record"}
          </button>
        </div>
      </form>
    </Modal>
  );
}

const Key = ({ name, onPress }: { name: string; onPress: () => void }) => (
  <button type="button" className="act min-h-16 text-2xl" onClick={onPress}>
    {name}
  </button>
);
