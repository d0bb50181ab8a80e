import { useState } from "react";
import type { Schemas } from "../api/client";
import { Modal } from "../shell/Modal";
import { useFormat } from "../units/format";
import { INSTRUMENT_OF, readInstrument } from "./instrument";
import { Keypad } from "./Keypad";
import { currentOf } from "./NextAction";
import { CONSISTENCY, QUANTITY, quantitiesOf, type Run } from "./run";
import type { Said } from "./stamp";

interface Props {
  run: Run;
  write: (label: string, said: Said) => void;
}

type Open = "reading" | "consistency" | "water" | "note" | "hold" | "scrap" | null;

/** All that can be written down at any time, each two touches away. */
export function RunActions({ run, write }: Props) {
  const format = useFormat();
  const [open, setOpen] = useState<Open>(null);
  const [quantity, setQuantity] = useState<Schemas["Quantity"]>();
  const [points, setPoints] = useState(false);
  const stage = currentOf(run);
  const over = run.state === "finished" || run.state === "scrapped";
  const running = run.state === "running";
  const at = stage ? { stage: stage.stage } : {};
  const reader = quantity && INSTRUMENT_OF[quantity];
  const close = () => {
    setOpen(null);
    setQuantity(undefined);
  };
  const button = (what: Exclude<Open, null>, name: string) => (
    <button type="button" className="act min-h-16 text-xl" onClick={() => setOpen(what)}>
      {name}
    </button>
  );
  return (
    <section aria-label="Write down" className="grid grid-cols-2 gap-2">
      {run.state !== "scrapped" && button("reading", "Reading")}
      {running && button("consistency", "Consistency")}
      {(running || run.state === "held") && button("water", "Water added")}
      {button("note", "Note")}
      {running && stage?.role === "sponge" && (
        <button
          type="button"
          className="act min-h-16 text-xl"
          onClick={() =>
            write("the sponge drops", {
              kind: "observation",
              name: "sponge_tap",
              value: 2,
              ...at,
            })
          }
        >
          Sponge drops
        </button>
      )}
      {running && button("hold", "Hold")}
      {!over && button("scrap", "Scrap")}
      {open === "reading" && !quantity && (
        <Modal open onClose={close} title="What was read">
          <div className="mt-3 grid grid-cols-2 gap-2">
            {quantitiesOf(stage).map((one) => (
              <button
                key={one}
                type="button"
                className="act min-h-16 text-xl"
                onClick={() => setQuantity(one)}
              >
                {QUANTITY[one].name}
              </button>
            ))}
          </div>
        </Modal>
      )}
      {open === "reading" && quantity && (
        <Keypad
          title={QUANTITY[quantity].name}
          unit={QUANTITY[quantity].unit}
          signed={quantity.endsWith("_c")}
          {...(reader && {
            instrument: {
              name: reader[1],
              read: () => readInstrument(run.id, reader[0]).then(({ value }) => value),
            },
          })}
          onClose={close}
          onEnter={(value) => {
            write(QUANTITY[quantity].name.toLowerCase(), {
              kind: "reading",
              quantity,
              value,
              ...at,
            });
            close();
          }}
        />
      )}
      {open === "consistency" && (
        <Modal open onClose={close} title="The dough is">
          <div className="mt-3 grid gap-2">
            {CONSISTENCY.map(([value, name]) => (
              <button
                key={value}
                type="button"
                className="act min-h-16 text-xl"
                onClick={() => {
                  write(`consistency ${name}`, { kind: "consistency", value, ...at });
                  close();
                }}
              >
                {name}
              </button>
            ))}
          </div>
        </Modal>
      )}
      {open === "water" && (
        <Keypad
          key={String(points)}
          title={
            run.damaged_starch
              ? `Water added by feel. Caution: ${format.text(run.damaged_starch)}`
              : "Water added by feel"
          }
          unit={points ? "points on flour" : "kg"}
          onClose={close}
          onEnter={(value) => {
            const kg = points ? (value * run.planned.flour_kg) / 100 : value;
            write("water added", {
              kind: "addition",
              ingredient: "water",
              kg: Number(kg.toFixed(4)),
              reason: "feel",
              ...at,
            });
            close();
          }}
          other={{
            name: points ? "in kg" : "in points on flour",
            onPress: () => setPoints(!points),
          }}
        />
      )}
      {open === "note" && (
        <TextAsked
          title="Note"
          onClose={close}
          onEnter={(text) => {
            write("note", { kind: "note", text, ...at });
            close();
          }}
        />
      )}
      {open === "hold" && (
        <TextAsked
          title="Why is it held?"
          quick={["divider", "oven", "proofer", "nobody is free", "dough is not right"]}
          onClose={close}
          onEnter={(reason) => {
            write("held", { kind: "hold", reason, ...at });
            close();
          }}
        />
      )}
      {open === "scrap" && (
        <TextAsked
          title="Why is it scrapped?"
          caution="Never throw live dough away as it is: it goes on rising in the bin. Bake it first."
          onClose={close}
          onEnter={(reason) => {
            write("scrapped", { kind: "scrap", reason });
            close();
          }}
        />
      )}
    </section>
  );
}

interface TextProps {
  title: string;
  caution?: string;
  quick?: string[];
  onClose: () => void;
  onEnter: (text: string) => void;
}

function TextAsked({ title, caution, quick = [], onClose, onEnter }: TextProps) {
  const [text, setText] = useState("");
  return (
    <Modal open onClose={onClose} title={title}>
      <form
        aria-label={title}
        className="mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim()) onEnter(text.trim());
        }}
      >
        {caution && (
          <p className="mb-2 text-lg">
            <b>Caution:</b> {caution}
          </p>
        )}
        <div className="grid grid-cols-2 gap-2">
          {quick.map((one) => (
            <button
              key={one}
              type="button"
              className="act min-h-16 text-xl"
              onClick={() => onEnter(one)}
            >
              {one}
            </button>
          ))}
        </div>
        <textarea
          aria-label={title}
          className="mt-2 min-h-28 w-full border-2 border-iron bg-sheet p-2 text-xl"
          maxLength={2000}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <button
          type="submit"
          className="act act-main mt-2 min-h-16 w-full text-2xl"
          disabled={!text.trim()}
        >
          Record
        </button>
      </form>
    </Modal>
  );
}
