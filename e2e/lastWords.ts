import type { Reporter, TestCase, TestResult } from "@playwright/test/reporter";

/** Says once more at the end why each journey failed: where a log is cut, its end is read. */
export default class LastWords implements Reporter {
  private readonly words: string[] = [];

  onTestEnd({ title }: TestCase, { errors, status }: TestResult) {
    for (const { message, stack } of status === "failed" || status === "timedOut" ? errors : []) {
      const place = /journeys\/\S+:\d+:\d+/.exec(stack ?? "")?.[0] ?? "";
      this.words.push(`${title}: ${place}\n${(message ?? "").split("\n").slice(0, 6).join("\n")}`);
    }
  }

  onEnd() {
    for (const words of this.words) console.log(words);
  }
}
