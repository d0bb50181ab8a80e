import { useLayoutEffect, useRef, useState } from "react";

const STEPS = 50;
/** Who undoes, the view in front last. */
const undoers: { undo: () => void }[] = [];

/** A field in which text is being typed undoes its own text; one that shows what is set does not. */
function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLTextAreaElement) return true;
  if (!(target instanceof HTMLInputElement)) return false;
  if (["range", "checkbox", "radio", "button"].includes(target.type)) return false;
  return target.dataset.settled === undefined;
}

function onKey(event: KeyboardEvent) {
  const wanted = event.key === "z" && (event.ctrlKey || event.metaKey) && !event.shiftKey;
  if (!wanted || isTyping(event.target)) return;
  event.preventDefault();
  undoers.at(-1)?.undo();
}

/** Ctrl+Z, from every control; the view that came last answers while it has anything to undo. */
export function useUndoKey(undo: (() => void) | undefined) {
  const newest = useRef(undo);
  // Before the change is painted: a key pressed as soon as it is seen undoes it.
  useLayoutEffect(() => {
    newest.current = undo;
  }, [undo]);
  const can = undo !== undefined;
  useLayoutEffect(() => {
    if (!can) return;
    const one = { undo: () => newest.current?.() };
    if (undoers.length === 0) window.addEventListener("keydown", onKey);
    undoers.push(one);
    return () => {
      undoers.splice(undoers.indexOf(one), 1);
      if (undoers.length === 0) window.removeEventListener("keydown", onKey);
    };
  }, [can]);
}

/** The earlier states of what a view is asked, and how to go back one. */
export function useUndoStack<T extends object>(
  value: T,
  set: (change: Partial<T> | ((now: T) => Partial<T>)) => void,
) {
  const [past, setPast] = useState<T[]>([]);
  const change = (next: Partial<T> | ((now: T) => Partial<T>)) => {
    setPast((all) => [...all.slice(1 - STEPS), value]);
    set(next);
  };
  const last = past.at(-1);
  const undo = last
    ? () => {
        set(last);
        setPast(past.slice(0, -1));
      }
    : undefined;
  useUndoKey(undo);
  return [change, undo] as const;
}
