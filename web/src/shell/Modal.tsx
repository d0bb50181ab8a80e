import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  /** For a picture. */
  wide?: boolean;
  children: ReactNode;
}

/** A sheet laid over the page. */
export function Modal({ open, onClose, title, wide, children }: Props) {
  return (
    <Dialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-[10vh]">
        <DialogPanel
          className={`w-full border border-ink bg-sheet p-5 shadow-xl ${wide ? "max-w-4xl" : "max-w-xl"}`}
        >
          <div className="flex items-baseline justify-between">
            <DialogTitle className="text-lg font-semibold">{title}</DialogTitle>
            <button type="button" className="link text-sm" onClick={onClose}>
              Close <kbd className="font-sans text-iron">Esc</kbd>
            </button>
          </div>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
