import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { Mark } from "@/app/Mark";
import { leavingIsToBeTold, leavingIsTold } from "@/wire/leaving";
import classes from "./SignIn.module.css";

const ROLES = { head: "head baker, can change everything", bench: "bench, runs and records" };

export function SignIn({ session }: { session: Schemas["Session"] }) {
  return (
    <main className={classes.page}>
      <section className={classes.words}>
        <Mark className={classes.mark} />
        <h1>Eight Turn</h1>
        <p>Block, folds, rests and cuts of a laminated dough: planned, run and remembered.</p>
      </section>
      <SignInForm session={session} />
    </main>
  );
}

interface Form {
  session: Schemas["Session"];
  /** Who was here before. */
  who?: string;
}

export function SignInForm({ session, who = "" }: Form) {
  const [username, setUsername] = useState(who);
  const [password, setPassword] = useState("");
  const enter = useMutation({
    mutationFn: async (who: Schemas["Credentials"]) => {
      // whoever left here without a connection is out before somebody comes in
      if (leavingIsToBeTold()) await got(api.DELETE("/api/session")).catch(() => undefined);
      const found = await got(api.POST("/api/session", { body: who }));
      leavingIsTold();
      return found;
    },
    onSuccess: (found) => queries.setQueryData(["session"], found),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate({ username, password });
  };
  const fault =
    enter.error instanceof Problem ? enter.error.message : enter.error && sentence(enter.error);
  return (
    <form className={classes.form} onSubmit={submit}>
      <h2>Sign in</h2>
      <TextInput
        label="Name"
        size="md"
        autoComplete="username"
        value={username}
        onChange={(e) => setUsername(e.currentTarget.value)}
        required
        withAsterisk={false}
      />
      <PasswordInput
        label="Password"
        size="md"
        autoComplete="current-password"
        value={password}
        error={fault}
        onChange={(e) => setPassword(e.currentTarget.value)}
        required
        withAsterisk={false}
      />
      <Button type="submit" size="md" loading={enter.isPending}>
        Sign in
      </Button>
      {leavingIsToBeTold() && (
        <p className="quiet" role="status">
          Signed out on this tablet. The bakehouse is told as soon as it answers.
        </p>
      )}
      <details className={classes.forgotten}>
        <summary>Password forgotten?</summary>
        <p>
          Ask a head baker: under <em>Kitchen</em>, <em>People</em> they give you a new one, also if
          you are locked out. The only head baker gets one on the machine that serves the bakehouse:{" "}
          <code>manage.py new_password NAME</code>
        </p>
      </details>
      {session.demo_accounts.length > 0 && (
        <div className={classes.demo}>
          <p className="quiet">This is the demo: the bakehouse at Teasel Lock. Come in as</p>
          {session.demo_accounts.map((account) => (
            <Button
              key={account.username}
              variant="default"
              fullWidth
              size="md"
              justify="flex-start"
              onClick={() => enter.mutate(account)}
            >
              <b>{account.username}</b>,&nbsp;{ROLES[account.role]}
            </Button>
          ))}
        </div>
      )}
    </form>
  );
}
