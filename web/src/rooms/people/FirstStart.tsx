/** A new house: its first head baker, and the few things of the kitchen that every plan starts from. */
import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, byField, got, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { Mark } from "@/app/Mark";
import { FaultsContext } from "@/measures/faults";
import { RowInput } from "@/measures/RowInput";
import classes from "./SignIn.module.css";

export function FirstStart() {
  const [code, setCode] = useState("");
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const [own, setOwn] = useState<Record<string, number>>({});
  const rows = useQuery({ queryKey: ["first"], queryFn: () => got(api.GET("/api/first")) });
  const begin = useMutation({
    mutationFn: (body: Schemas["First"]) => got(api.POST("/api/first", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["session"] }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate({ code, username, password, rows: own });
  };
  const faults = byField(begin.error);
  return (
    <FaultsContext.Provider value={faults}>
      <main className={classes.page}>
        <section className={classes.words}>
          <Mark className={classes.mark} />
          <h1>A new bakehouse</h1>
          <p>
            You are its first head baker. The code stands in the terminal in which Eight Turn was
            started. Every plan starts from what you say of the kitchen; you can change any of it
            later.
          </p>
        </section>
        <form className={classes.form} onSubmit={submit}>
          <TextInput
            label="Code from the terminal"
            size="md"
            autoComplete="off"
            value={code}
            error={faults.code}
            onChange={(e) => setCode(e.currentTarget.value)}
          />
          <TextInput
            label="Your name"
            size="md"
            autoComplete="username"
            value={username}
            error={faults.username}
            onChange={(e) => setUsername(e.currentTarget.value)}
          />
          <PasswordInput
            label="A password"
            size="md"
            autoComplete="new-password"
            value={password}
            error={faults.password}
            onChange={(e) => setPassword(e.currentTarget.value)}
          />
          {rows.data?.map((row) => (
            <RowInput
              key={row.key}
              row={{ ...row, value: own[row.key] ?? row.value, origin: "" }}
              at="rows"
              set={(key, value) => setOwn({ ...own, [key]: value })}
            />
          ))}
          {begin.error && Object.keys(faults).every((field) => !field) ? (
            <p role="alert">{sentence(begin.error)}</p>
          ) : null}
          <Button type="submit" size="md" loading={begin.isPending}>
            Begin
          </Button>
        </form>
      </main>
    </FaultsContext.Provider>
  );
}
