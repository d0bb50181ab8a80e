import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { CodeField } from "../form/CodeField";
import { Form } from "../form/Form";
import { FieldText } from "../form/FieldText";
import { PasswordField } from "../form/PasswordField";
import { signedInNow } from "../session/session";
import { ROLES } from "./roles";

/** Signs in with an account, or makes the first administrator of a new plant. */
export function SignInPage() {
  const about = useQuery({
    queryKey: ["about"],
    queryFn: () => answer(api.GET("/api/v1/about")),
  }).data;
  return (
    <main className="mx-auto max-w-md px-4 py-16">
      <p className="mb-8 flex items-center gap-3">
        <img src="/peel.svg" alt="" className="h-9 w-9" />
        <span className="text-2xl font-bold [font-stretch:118%]">Ironpeel</span>
      </p>
      {about?.set_up ? <SetUp /> : <SignIn />}
      {about?.demo && <ShowAccounts {...about.demo} />}
    </main>
  );
}

/** Signs in, and lets everything be asked for anew as this person. */
function useSignIn<Input>(ask: (input: Input) => Promise<Schemas["SessionView"]>) {
  const queries = useQueryClient();
  return useMutation({
    networkMode: "always",
    mutationFn: ask,
    onSuccess: async (session) => {
      queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== "session" });
      await signedInNow(queries, session);
    },
  });
}

const signIn = (body: Schemas["SignInInput"]) => answer(api.POST("/api/v1/session", { body }));

function SignIn() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const enter = useSignIn(signIn);
  const wanted = enter.error instanceof Refused && enter.error.at("code") !== undefined;
  return (
    <Form
      label="Sign in"
      className="space-y-4"
      error={enter.error}
      onSubmit={() => enter.mutate({ email, password, code })}
    >
      <h1>Sign in</h1>
      <FieldText
        label="E-mail address"
        type="email"
        autoComplete="username"
        value={email}
        onChange={setEmail}
      />
      <PasswordField label="Password" value={password} onChange={setPassword} />
      {(wanted || code) && <CodeField value={code} onChange={setCode} />}
      <button type="submit" className="act act-main" disabled={enter.isPending}>
        Sign in
      </button>
    </Form>
  );
}

function SetUp() {
  const [is, set] = useState({ code: "", name: "", initials: "", email: "", password: "" });
  const make = useSignIn((body: Schemas["SetupInput"]) =>
    answer(api.POST("/api/v1/setup", { body })),
  );
  const field = (key: keyof typeof is) => ({
    value: is[key],
    onChange: (value: string) => set((now) => ({ ...now, [key]: value })),
    field: key,
  });
  return (
    <Form
      label="First administrator"
      className="space-y-4"
      error={make.error}
      onSubmit={() => make.mutate(is)}
    >
      <h1>First administrator</h1>
      <p className="text-sm text-iron">
        Nobody has an account at this plant yet. The server printed a code when it started; whoever
        has it makes the first account here.
      </p>
      <FieldText label="Code" placeholder="0000-0000-0000-0000" {...field("code")} />
      <FieldText label="Name" {...field("name")} />
      <FieldText label="Initials" className="w-32" {...field("initials")} />
      <FieldText label="E-mail address" type="email" {...field("email")} />
      <PasswordField label="Password" isNew {...field("password")} />
      <button type="submit" className="act act-main" disabled={make.isPending}>
        Make the account
      </button>
    </Form>
  );
}

function ShowAccounts({ accounts, password }: Schemas["DemoAccounts"]) {
  const enter = useSignIn(signIn);
  return (
    <section aria-labelledby="demo-accounts" className="mt-10 border-t border-ink pt-4">
      <h2 id="demo-accounts">The demo plant</h2>
      <p className="text-sm text-iron">
        Skerrow Bakehouse is invented, and so are its people. Each comes in with one press.
      </p>
      <ul className="mt-3 divide-y divide-hair border-y border-hair">
        {accounts.map(({ name, email, role }) => (
          <li key={email}>
            <button
              type="button"
              className="flex w-full items-baseline gap-3 px-2 py-2.5 text-left hover:bg-faint"
              disabled={enter.isPending}
              onClick={() => enter.mutate({ email, password })}
            >
              <span className="font-semibold">{name}</span>
              <span className="text-sm text-iron">{ROLES[role].name}</span>
              <span className="ml-auto text-sm text-iron">{ROLES[role].does}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
