/** The people of the house: let in, put out, what they may do, their passwords. */
import { Button, NativeSelect, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";
import { people as everybody, queries, sentence } from "@/api/queries";
import classes from "./People.module.css";

type Person = Schemas["Person"];
type Role = Person["role"];

const ROLES: { value: Role; label: string }[] = [
  { value: "bench", label: "bench: runs and records" },
  { value: "head", label: "head: can change everything" },
];
const refresh = () => queries.invalidateQueries({ queryKey: ["people"] });

/** What is wrong with a field, if a refusal named it. */
const faultOf = (error: unknown, field: string) =>
  error instanceof Problem ? error.faults.find((f) => f.field === field)?.message : undefined;

export function People({ me }: { me: Schemas["Me"] }) {
  const people = useQuery(everybody);
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [role, setRole] = useState<Role>("bench");
  const add = useMutation({
    mutationFn: () => got(api.POST("/api/people", { body: { username: name, password, role } })),
    onSuccess: () => {
      setName("");
      setPassword("");
      refresh();
    },
  });
  return (
    <section aria-label="People" className={classes.people}>
      <h2>People</h2>
      <ul className="ruled">
        {people.data?.map((person) => (
          <Row key={person.username} person={person} me={me} />
        ))}
      </ul>
      <form
        className={classes.add}
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <TextInput
          label="Who comes"
          required
          withAsterisk={false}
          value={name}
          error={faultOf(add.error, "username")}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <PasswordInput
          label="First password"
          required
          withAsterisk={false}
          autoComplete="new-password"
          value={password}
          error={faultOf(add.error, "password")}
          onChange={(e) => setPassword(e.currentTarget.value)}
        />
        <NativeSelect
          label="May do"
          data={ROLES}
          value={role}
          onChange={(e) => setRole(e.currentTarget.value as Role)}
        />
        <Button type="submit" variant="default" loading={add.isPending}>
          Let in
        </Button>
      </form>
    </section>
  );
}

function Row({ person, me }: { person: Person; me: Schemas["Me"] }) {
  const [password, setPassword] = useState<string | null>(null);
  const change = useMutation({
    mutationFn: (to: Partial<Schemas["ChangePerson"]>) =>
      got(
        api.PUT("/api/people/{username}", {
          params: { path: { username: person.username } },
          body: { role: null, here: null, password: null, ...to },
        }),
      ),
    onSuccess: () => {
      setPassword(null);
      refresh();
    },
  });
  const { username, role, here } = person;
  return (
    <li className={classes.person} data-out={!here || undefined}>
      <b>
        {username}
        {username === me.username && <span className="quiet"> (you)</span>}
      </b>
      {here ? (
        <NativeSelect
          aria-label={`What ${username} may do`}
          data={ROLES}
          value={role}
          onChange={(e) => change.mutate({ role: e.currentTarget.value as Role })}
        />
      ) : (
        <span className="quiet">barred</span>
      )}
      {password === null ? (
        <Button variant="default" onClick={() => setPassword("")}>
          New password
        </Button>
      ) : (
        <form
          className={classes.password}
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate({ password });
          }}
        >
          <PasswordInput
            aria-label={`New password of ${username}`}
            autoComplete="new-password"
            value={password}
            error={faultOf(change.error, "password")}
            onChange={(e) => setPassword(e.currentTarget.value)}
          />
          <Button type="submit" loading={change.isPending}>
            Keep it
          </Button>
        </form>
      )}
      {username !== me.username && (
        <Button
          variant="default"
          aria-label={here ? `Bar from signing in: ${username}` : `Allow in again: ${username}`}
          onClick={() => change.mutate({ here: !here })}
        >
          {here ? "Bar from signing in" : "Allow in again"}
        </Button>
      )}
      {change.error && !faultOf(change.error, "password") ? (
        <p role="alert" className={classes.wrong}>
          {sentence(change.error)}
        </p>
      ) : null}
    </li>
  );
}

/** One's own password, from the menu. */
export function OwnPassword({ done }: { done: () => void }) {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const change = useMutation({
    mutationFn: () => got(api.PUT("/api/session/password", { body: { old, new: next } })),
    onSuccess: done,
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate();
      }}
    >
      <PasswordInput
        label="The one you have"
        autoComplete="current-password"
        value={old}
        error={faultOf(change.error, "old")}
        onChange={(e) => setOld(e.currentTarget.value)}
      />
      <PasswordInput
        label="The new one"
        autoComplete="new-password"
        mt={10}
        value={next}
        error={faultOf(change.error, "new")}
        onChange={(e) => setNext(e.currentTarget.value)}
      />
      <p className="quiet">You stay signed in here, and are signed out everywhere else.</p>
      <Button type="submit" loading={change.isPending}>
        Change it
      </Button>
    </form>
  );
}
