/** Trimmings that lie in the store and belong into the dough that is weighed, the oldest first. */
import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { useOutbox } from "@/offline/outbox";
import { sayOf, waitingOf } from "./blocks";
import classes from "./MovesDue.module.css";

interface Props {
  family: Schemas["Family"];
  neededG: number;
  run: string;
  into: string;
}

export function TrimmingsToUse({ family, neededG, run, into }: Props) {
  const { say } = useSaying();
  const outbox = useOutbox();
  const there = useQuery({
    queryKey: ["store", "trimmings", family, neededG],
    queryFn: () =>
      got(api.GET("/api/blocks/trimmings", { params: { query: { family, needed_g: neededG } } })),
  });
  const fits = (there.data ?? []).filter((t) => waitingOf(outbox, t.block).length === 0);
  if (fits.length === 0) return null;
  return (
    <p className={classes.trimmings}>
      From the cold store:
      {fits.map((t) => (
        <Button
          key={t.block}
          size="md"
          variant="default"
          onClick={() =>
            sayOf(t.block, { kind: "used", grams: t.grams, run, why: `into ${into}`.slice(0, 200) })
          }
        >
          {say("mass", Math.round(t.grams))} of {t.mark} goes in
        </Button>
      ))}
    </p>
  );
}
