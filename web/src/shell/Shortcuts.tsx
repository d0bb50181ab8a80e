import { Modal } from "./Modal";

const KEYS = [
  ["1 … 7", "along the chain: flour, water, dough, method, floor, oven, results"],
  ["[  ]", "the lot before, the lot after"],
  ["Ctrl Z", "undo the last change"],
  ["/  or  Ctrl K", "find a lot, a product, an action"],
  ["n", "import certificate"],
  ["p", "plant: flours, products, lines, ingredients, coefficients"],
  [",", "settings"],
  [
    "Enter  Esc",
    "in a field: take it over, put it back; in a certificate Enter goes down the column",
  ],
  ["← →", "on a curve's mark: move it by a tenth of a minute"],
  ["Ctrl P", "print the sheet"],
  ["?", "these shortcuts"],
] as const;

export function Shortcuts(props: { open: boolean; onClose: () => void }) {
  return (
    <Modal {...props} title="Shortcuts">
      <dl className="mt-3">
        {KEYS.map(([keys, does]) => (
          <div key={keys} className="flex border-t border-hair py-1.5">
            <dt className="w-36 shrink-0 font-semibold whitespace-pre">{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
