import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { Pad } from "@/measures/Pad";
import { houseTime } from "@/wire/clock";
import classes from "./Keypad.module.css";
import { spokeLately } from "./now";

type Probe = Schemas["Probe"];
const PROBES: { value: Probe; label: string }[] = [
  { value: "dough", label: "Dough" },
  { value: "butter", label: "Butter" },
  { value: "room", label: "Room" },
];

/** A temperature without typing: what of, and how warm. */
export function Keypad({ onEnter }: { onEnter: (probe: Probe, value_c: number) => void }) {
  const { say } = useSaying();
  const [probe, setProbe] = useState<Probe>("dough");
  const probes = useQuery({
    queryKey: ["probes"],
    queryFn: () => got(api.GET("/api/probes")),
    refetchInterval: 20_000,
  });
  const fresh = spokeLately(probes.data ?? [], new Date(houseTime()));
  return (
    <div className={classes.pad}>
      {fresh.length > 0 && (
        <div className={classes.probes}>
          {fresh.map((p) => (
            <Button
              key={p.id}
              variant="default"
              size="lg"
              onClick={() => p.last_c !== null && onEnter(probe, p.last_c as number)}
            >
              {p.name}: {say("temperature", p.last_c as number)}
            </Button>
          ))}
        </div>
      )}
      <Choice label="Of the" tight value={probe} onChange={setProbe} options={PROBES} />
      <Pad
        quantity="temperature"
        label="Temperature entered"
        minus
        example="12"
        refuse={(value, shown) =>
          value < -40 || value > 60 ? `${shown} is no temperature of a bakehouse.` : null
        }
        onEnter={(value) => onEnter(probe, value)}
      />
    </div>
  );
}
