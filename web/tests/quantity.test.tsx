import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, test, vi } from "vitest";
import type { Kind } from "../src/units/parse";
import { PreferencesProvider, type Preferences } from "../src/units/preferences";
import { NumberField } from "../src/form/NumberField";

function show(
  kind: Kind,
  start: number | null,
  {
    fault,
    usual,
    preferences = {},
  }: { fault?: string; usual?: number; preferences?: Partial<Preferences> } = {},
) {
  localStorage.setItem("ironpeel.preferences", JSON.stringify(preferences));
  const onSet = vi.fn();
  function Held() {
    const [value, set] = useState(start);
    return (
      <NumberField
        label="Tap water"
        kind={kind}
        value={value}
        usual={usual}
        fault={fault}
        onSet={(next) => {
          onSet(next);
          set(next);
        }}
      />
    );
  }
  render(
    <PreferencesProvider>
      <Held />
    </PreferencesProvider>,
  );
  return {
    field: screen.getByLabelText<HTMLInputElement>("Tap water"),
    onSet,
    user: userEvent.setup(),
  };
}

test("a number is taken on Enter and shown as it is kept", async () => {
  const { field, onSet, user } = show("temperature", 12);
  expect(field.value).toBe("12.0 °C");
  await user.clear(field);
  await user.type(field, "50 F{Enter}");
  expect(onSet).toHaveBeenCalledExactlyOnceWith(10);
  expect(field.value).toBe("10.0 °C");
});

test("leaving the field takes it too, and only what changed", async () => {
  const { field, onSet, user } = show("mass", 160);
  await user.clear(field);
  await user.type(field, "160.000 kg");
  await user.tab();
  expect(onSet).not.toHaveBeenCalled();
  await user.clear(field);
  await user.type(field, "850 g");
  await user.tab();
  expect(onSet).toHaveBeenCalledExactlyOnceWith(0.85);
});

test("what is typed goes back on Escape", async () => {
  const { field, onSet, user } = show("percent", 61.5);
  await user.type(field, "9");
  await user.keyboard("{Escape}");
  expect(field.value).toBe("61.5 %");
  await user.tab();
  expect(onSet).not.toHaveBeenCalled();
});

test("what cannot be understood stays in sight with what would be right", async () => {
  const { field, onSet, user } = show("percent", 61.5);
  await user.clear(field);
  await user.type(field, "plenty{Enter}");
  expect(screen.getByText("“plenty” is not a percentage, such as 1.9")).toBeTruthy();
  expect(field.value).toBe("plenty");
  expect(field.getAttribute("aria-invalid")).toBe("true");
  const message = field.getAttribute("aria-describedby");
  expect(message && document.getElementById(message)?.textContent).toContain("plenty");
  await user.clear(field);
  await user.type(field, "58{Enter}");
  expect(onSet).toHaveBeenCalledExactlyOnceWith(58);
  expect(field.getAttribute("aria-invalid")).toBeNull();
});

test("an emptied field is nothing, and shows what is usual", async () => {
  const { field, onSet, user } = show("temperature", 12, { usual: 14 });
  await user.clear(field);
  await user.keyboard("{Enter}");
  expect(onSet).toHaveBeenCalledExactlyOnceWith(null);
  expect([field.value, field.placeholder]).toEqual(["", "14.0 °C"]);
});

test("the server's word stands at the field", () => {
  const { field } = show("temperature", 300, { fault: "tap water must be from 0 to 60 °C" });
  expect(screen.getByText("tap water must be from 0 to 60 °C")).toBeTruthy();
  expect(field.getAttribute("aria-invalid")).toBe("true");
});

test("units and marks are one person's", async () => {
  const { field, onSet, user } = show("mass", 1.4741752025, {
    preferences: { mass: "lb", mark: "," },
  });
  expect(field.value).toBe("3,25 lb");
  await user.clear(field);
  await user.type(field, "2{Enter}");
  expect(onSet.mock.calls[0]?.[0]).toBeCloseTo(0.90718474, 8);
});

test("a difference of temperatures is shown and typed in this person's degrees", async () => {
  const { field, onSet, user } = show("degrees", 2, { preferences: { temperature: "F" } });
  expect(field.value).toBe("+3.6 °F");
  for (const [typed, wanted] of [
    ["9", 5],
    ["−2 K", -2],
    ["-1.5 °C", -1.5],
  ] as const) {
    await user.clear(field);
    await user.type(field, `${typed}{Enter}`);
    expect(onSet).toHaveBeenLastCalledWith(wanted);
  }
});
