/** Who is here now: one press on a name, or a short number on a keyboard. */
import { Button, Modal } from "@mantine/core";
import { useWindowEvent } from "@mantine/hooks";
import { IconUser } from "@tabler/icons-react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { people as everybody } from "@/api/queries";
import { useHere } from "@/offline/here";
import classes from "./BenchRun.module.css";

export function Here({ me }: { me: string }) {
  const [here, setHere] = useHere();
  const [asking, ask] = useState(false);
  const people = useQuery({ ...everybody, enabled: asking });
  return (
    <>
      <button type="button" className={classes.here} onClick={() => ask(true)}>
        <IconUser size={18} /> {here ?? me}
      </button>
      <Modal opened={asking} onClose={() => ask(false)} title="Who is here?">
        <Choose
          people={(people.data ?? []).filter((p) => p.here)}
          choose={(name) => {
            setHere(name === me ? null : name);
            ask(false);
          }}
        />
      </Modal>
    </>
  );
}

export function Choose({
  people,
  choose,
}: {
  people: Schemas["Person"][];
  choose: (name: string) => void;
}) {
  const [typed, setTyped] = useState("");
  useWindowEvent("keydown", (event) => {
    if (!/^\d$/.test(event.key)) return;
    const next = typed + event.key;
    const found = people.find((p) => String(p.number) === next);
    // a longer number may begin like a shorter one: enter is not needed where none does
    const longer = people.some(
      (p) => String(p.number) !== next && String(p.number).startsWith(next),
    );
    if (found && !longer) choose(found.username);
    else setTyped(longer ? next : "");
  });
  return (
    <div className={classes.quick}>
      {people.map((p) => (
        <Button key={p.number} size="lg" variant="default" onClick={() => choose(p.username)}>
          {p.username}&nbsp;<span className="quiet">{p.number}</span>
        </Button>
      ))}
    </div>
  );
}
