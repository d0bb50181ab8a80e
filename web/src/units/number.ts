/** Why a text is not a number. */
export type NumberFault = "empty" | "ambiguous" | "range" | "limit" | "not_a_number";

export type Mark = "." | ",";

const GROUPS = /[ \u00a0\u2009\u202f'’]/;
const DASH = "[-−‐‑–—]";
const RANGE = new RegExp(`\\d\\s*(?:${DASH}|to)\\s*[.,]?\\d`);

/**
 * Reads a number as people write it, by the grammar of the core: spaces and apostrophes group
 * thousands, of two marks the last is decimal, and a mark that could be either follows `mark`.
 */
export function parseNumber(text: string, mark?: Mark): { value: number } | { fault: NumberFault } {
  const trimmed = text.trim();
  if (trimmed === "") return { fault: "empty" };
  if (/^[<>≤≥]/.test(trimmed)) return { fault: "limit" };
  if (RANGE.test(trimmed)) return { fault: "range" };
  const read = spelt(trimmed.replace(/^[-−+]/, ""));
  if (!read) return { fault: "not_a_number" };
  if (read.either && !mark) return { fault: "ambiguous" };
  const digits = read.either && read.either !== mark ? read.thousands : read.decimal;
  const value = Number(digits);
  if (!Number.isFinite(value)) return { fault: "not_a_number" };
  return { value: /^[-−]/.test(trimmed) ? -value : value };
}

/** A number without its sign as digits; with both readings where one mark could be either. */
function spelt(text: string): { decimal: string; thousands: string; either?: Mark } | null {
  const runs = text.split(/[^\d]/);
  const marks = [...text.replace(/\d/g, "")].map((c) => (GROUPS.test(c) ? " " : c));
  if (marks.some((c) => ![" ", ".", ","].includes(c))) return null;
  if (runs.slice(1).includes("")) return null;
  const [first = ""] = runs;
  if (marks.length === 0) return first === "" ? null : { decimal: first, thousands: first };
  const grouped = (all: string[]) =>
    all.length === 1 || (/^[1-9]\d{0,2}$/.test(all[0] ?? "") && all.slice(1).every(isThree))
      ? all.join("")
      : null;
  const last = marks.at(-1) as Mark | " ";
  const earlier = marks.slice(0, -1);
  const alike = new Set(earlier).size <= 1;
  const plain = (digits: string | null) =>
    digits === null ? null : { decimal: digits, thousands: digits };
  if (earlier.length > 0 ? earlier.every((c) => c === last) : last === " ")
    return plain(grouped(runs));
  const whole = runs.slice(0, -1);
  const before = whole.length === 1 && whole[0] === "" ? "0" : grouped(whole);
  if (!alike || last === " " || before === null) return null;
  const decimal = `${before}.${runs.at(-1) ?? ""}`;
  const thousands = earlier.length === 0 ? grouped(runs) : null;
  return thousands === null ? plain(decimal) : { decimal, thousands, either: last };
}

const isThree = (run: string) => run.length === 3;

/** What a form sends of a typed number: nothing, the number, or the text for the server to refuse. */
export function given(text: string, mark: Mark): number | string | null {
  const read = parseNumber(text, mark);
  if ("value" in read) return read.value;
  return read.fault === "empty" ? null : text;
}
