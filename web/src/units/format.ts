import { useMemo } from "react";
import { getWeek } from "date-fns";
import { onTheWall, plantWords, shownZone, type PlantWords } from "./clock";
import { usePlantWords } from "./usePlantWords";
import { usePreferences, type Preferences } from "./preferences";

const KG_PER_LB = 0.45359237;

/** A quantity in a text, or two of them with what lies between, and what was given instead. */
const QUANTITY =
  /(?<![\w.])([-−]?\d+(?:\.\d+)?)(?:( to | and )([-−]?\d+(?:\.\d+)?))? (°C|K|kg|g)(?![\w/·])(; [-−]?\d+(?:\.\d+)? was given)?/g;
const GIVEN = /^; (\S+) was given/;

/** Numbers as one person wants to read them. */
export class Format {
  private readonly preferences: Preferences;
  private readonly plant: PlantWords;

  constructor(preferences: Preferences, plant = plantWords()) {
    this.preferences = preferences;
    this.plant = plant;
  }

  private get timeZone(): string {
    return shownZone(this.plant.zone);
  }

  number(value: number, decimals = 1): string {
    const { mark, more } = this.preferences;
    const digits = decimals === 0 ? 0 : decimals + more;
    const zero = Math.abs(value) < 0.5 * 10 ** -digits;
    // Rounded as the server's words are. The browser's own formatter takes a tenth of a second.
    const text = (zero ? 0 : value).toFixed(digits).replace(".", mark);
    return group(text, mark).replace("-", "−");
  }

  /** As many decimals as it has, for figures somebody typed. */
  plain(value: number): string {
    const text = String(Number(value.toPrecision(6)));
    return text.replace(".", this.preferences.mark).replace("-", "−");
  }

  signed(value: number, decimals = 1): string {
    const text = this.number(value, decimals);
    return value > 0 && !/^[0.,]*$/.test(text) ? `+${text}` : text;
  }

  percent(value: number, decimals = 1): string {
    return `${this.number(value, decimals)} %`;
  }

  /** A share of a formula: of what is dosed in thousandths, the thousandths too. */
  share(value: number): string {
    return this.percent(value, value !== 0 && Math.abs(value) < 0.1 ? 4 : 2);
  }

  temperature(c: number, decimals = 1): string {
    const inF = this.preferences.temperature === "F";
    return `${this.number(inF ? c * 1.8 + 32 : c, decimals)} °${inF ? "F" : "C"}`;
  }

  /** A difference of temperatures. */
  degrees(c: number, decimals = 1): string {
    const inF = this.preferences.temperature === "F";
    return `${this.signed(inF ? c * 1.8 : c, decimals)} °${inF ? "F" : "C"}`;
  }

  /** How far two temperatures are apart, without a sign. */
  apart(c: number, decimals = 1): string {
    return this.degrees(Math.abs(c), decimals).replace("+", "");
  }

  /** A mass to the division of its scale, or where none is meant as a mass of its size is told. */
  mass(kg: number, scale?: number): string {
    const division = scale ?? usualDivision(kg);
    if (this.preferences.mass === "lb") {
      const lb = kg / KG_PER_LB;
      const oz = lb * 16;
      if (oz !== 0 && Math.abs(oz) < 0.1) return `${this.plain(Number(oz.toPrecision(2)))} oz`;
      return Math.abs(lb) < 1 ? `${this.number(oz, 2)} oz` : `${this.number(lb, 2)} lb`;
    }
    if (Math.abs(kg) < 1 && division <= 0.01) {
      const grams = Math.max(0, Math.ceil(-Math.log10(division * 1000) - 1e-9));
      return `${this.number(kg * 1000, grams)} g`;
    }
    return `${this.number(kg, decimalsOf(division))} kg`;
  }

  /** A quantity of flour: a delivery in tonnes, a bag in kilograms. */
  tonnes(tonnes: number): string {
    if (this.preferences.mass === "lb") {
      return `${this.number((tonnes * 1000) / KG_PER_LB, 0)} lb`;
    }
    return tonnes !== 0 && Math.abs(tonnes) < 1
      ? `${this.plain(tonnes * 1000)} kg`
      : `${this.number(tonnes)} t`;
  }

  /** So many of a thing. */
  count(many: number, one: string, more = `${one}s`): string {
    return `${this.number(many, 0)} ${many === 1 ? one : more}`;
  }

  minutes(minutes: number): string {
    if (minutes < 60) return `${this.plain(Number(minutes.toFixed(1)))} min`;
    const whole = Math.round(minutes);
    return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")}`;
  }

  /** A stretch of minutes, its unit said once where it can be. */
  between(low: number, high: number): string {
    const short = high < 60 ? this.plain(low) : this.minutes(low);
    return `${short} to ${this.minutes(high)}`;
  }

  /** The minutes of an estimate, whole ones. */
  about({ low, high }: { low: number; high: number }): string {
    return this.between(Math.round(low), Math.round(high));
  }

  /** The date of a moment by the plant's clock; a date without a time is that date everywhere. */
  date(iso: string): string {
    return new Date(iso).toLocaleDateString("en-GB", {
      day: "numeric",
      month: "short",
      year: "numeric",
      timeZone: iso.includes("T") ? this.timeZone : "UTC",
    });
  }

  /** The month of a date and its year in two figures. */
  month(date: string): string {
    return new Date(date).toLocaleDateString("en-GB", {
      month: "short",
      year: "2-digit",
      timeZone: "UTC",
    });
  }

  moment(iso: string): string {
    return new Date(iso).toLocaleString("en-GB", {
      weekday: "short",
      day: "numeric",
      month: "short",
      ...this.clock(),
    });
  }

  /** The week of the year a moment is in, as the plant counts its weeks. */
  week(iso: string): string {
    const weekStartsOn = ({ monday: 1, sunday: 0, saturday: 6 } as const)[this.plant.weekStarts];
    // ISO 8601 where it is Monday; elsewhere the first of January is in the first week.
    const firstWeekContainsDate = weekStartsOn === 1 ? 4 : 1;
    return `week ${getWeek(onTheWall(iso), { weekStartsOn, firstWeekContainsDate })}`;
  }

  /** An amount of money in the plant's currency, where that is said. */
  money(value: number, decimals = 2): string {
    return `${this.number(value, decimals)} ${this.plant.currency}`.trim();
  }

  /** The hour of a moment. */
  time(iso: string): string {
    return new Date(iso).toLocaleTimeString("en-GB", this.clock());
  }

  private clock(): Intl.DateTimeFormatOptions {
    const half = this.preferences.clock === "12";
    return {
      hour: half ? "numeric" : "2-digit",
      minute: "2-digit",
      hourCycle: half ? "h12" : "h23",
      timeZone: this.timeZone,
    };
  }

  /**
   * A text of the server's with its quantities in this person's units. The server writes
   * temperatures in °C, differences of temperature in K, and masses in kg or g.
   */
  text(text: string): string {
    const { mark } = this.preferences;
    const shown = text.replace(
      QUANTITY,
      (all, low: string, to: string | undefined, high = "", unit: string, given = "") => {
        const one = (number: string) => this.inText(Number(number.replace("−", "-")), number, unit);
        const first = one(low);
        if (!first) return all;
        const last = to ? one(high) : first;
        const short = to && last ? `${first.split(" ")[0] ?? ""}${to}${last}` : first;
        const was = GIVEN.exec(given)?.[1];
        return was ? `${short}; ${one(was) ?? was} was given` : short;
      },
    );
    return mark === "," ? shown.replace(/(\d)\.(\d)/g, "$1,$2") : shown;
  }

  /** A number of a text in another unit, with the decimals it was written with; none if it stays. */
  private inText(value: number, written: string, unit: string): string | undefined {
    const decimals = (written.split(".")[1] ?? "").length;
    const { temperature, mass } = this.preferences;
    if (unit === "K") return this.apart(value, decimals);
    if (unit === "°C") return temperature === "F" ? this.temperature(value, decimals) : undefined;
    if (mass !== "lb") return undefined;
    return this.mass(unit === "g" ? value / 1000 : value, 0.001);
  }

  /** A figure with its unit, whatever it is of. */
  figure(value: number, unit: string, change = false): string {
    if (unit === "°C") return change ? this.degrees(value) : this.temperature(value);
    if (unit === "min") {
      const sign = value < 0 ? "−" : change ? "+" : "";
      return `${sign}${this.minutes(Math.abs(value))}`;
    }
    const number = change ? this.signed(value, 2) : this.number(value, 2);
    if (unit === "kg" && this.preferences.mass === "lb") {
      return (change && value > 0 ? "+" : "") + this.mass(value);
    }
    return unit ? `${number} ${unit}` : number;
  }
}

/** Three figures of a mass, and a tenth of a kilogram of what is heavier. */
const usualDivision = (kg: number) =>
  kg === 0 || Math.abs(kg) >= 10 ? 0.1 : Math.abs(kg) < 1 ? 0.001 : 0.01;

function decimalsOf(division: number): number {
  return Math.max(0, Math.ceil(-Math.log10(division) - 1e-9));
}

/** A thin space between thousands: neither mark can be mistaken for it. */
function group(text: string, mark: string): string {
  const [whole = "", part] = text.split(mark);
  const spaced = whole.replace(/\B(?=(\d{3})+$)/g, "\u202f");
  return part === undefined ? spaced : `${spaced}${mark}${part}`;
}

export function useFormat(): Format {
  const { preferences } = usePreferences();
  const plant = usePlantWords();
  return useMemo(() => new Format(preferences, plant), [preferences, plant]);
}
