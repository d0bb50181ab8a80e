import { useSyncExternalStore } from "react";
import { asProblem, Refused } from "./client";

/**
 * Things to record, kept until the server has them. Each carries an id made here, so that one sent
 * twice is stored once; each is kept in the browser, so that a reload loses nothing.
 */
export interface Letter {
  path: string;
  /** What it is, for the person waiting for it. */
  label: string;
  body: unknown;
}

const KEY = "ironpeel.outbox";
const AGAIN_MS = 3000;

interface Waiting {
  resolve: (answer: unknown) => void;
  reject: (why: unknown) => void;
}

let letters: Letter[] = JSON.parse(localStorage.getItem(KEY) ?? "[]") as Letter[];
let sending = false;
const waiting = new Map<string, Waiting>();
const listeners = new Set<() => void>();

function keep(next: Letter[]) {
  letters = next;
  localStorage.setItem(KEY, JSON.stringify(next));
  listeners.forEach((listener) => listener());
}

/** Records something: resolves when the server has it, rejects when the server refuses it. */
export function record<T>(letter: Letter): Promise<T> {
  keep([...letters.filter((other) => other.path !== letter.path), letter]);
  return new Promise<T>((resolve, reject) => {
    waiting.set(letter.path, { resolve: resolve as Waiting["resolve"], reject });
    void send();
  });
}

async function send(): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (let letter = letters[0]; letter; letter = letters[0]) {
      const response = await fetch(letter.path, {
        method: "PUT",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(letter.body),
      });
      if (response.status >= 500) throw new Error("the server cannot take it now");
      const answer: unknown = await response.json();
      const { path } = letter;
      keep(letters.filter((other) => other.path !== path));
      const waiter = waiting.get(path);
      waiting.delete(path);
      if (response.ok) waiter?.resolve(answer);
      else waiter?.reject(new Refused(asProblem(answer, response.status)));
    }
  } catch {
    setTimeout(() => void send(), AGAIN_MS);
  } finally {
    sending = false;
  }
}

window.addEventListener("online", () => void send());
if (letters.length > 0) void send();

/** What is not yet recorded. */
export function useOutbox(): Letter[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => letters,
  );
}
