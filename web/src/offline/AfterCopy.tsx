/** The house was put back to an earlier copy: what this tablet sent since is offered to be sent again. */
import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, got } from "@/api/client";
import { clock, day } from "@/app/time";
import { knowLife, useAnotherLife } from "@/wire/life";
import classes from "./Notices.module.css";
import { sendAgain } from "./outbox";
import { saveAsFile } from "./saveAsFile";
import { sentSince } from "./sent";

const MARGIN_MS = 60_000;

export function AfterCopy() {
  const another = useAnotherLife();
  return another ? <Offer /> : null;
}

function Offer() {
  const life = useQuery({
    queryKey: ["life"],
    queryFn: async () => {
      const { life } = await got(api.GET("/api/house"));
      const { id, copied_at } = life;
      const lost = copied_at ? await sentSince(Date.parse(copied_at) - MARGIN_MS) : [];
      return { id, copied_at, lost };
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
  const nothing = life.data && life.data.lost.length === 0 ? life.data.id : null;
  useEffect(() => {
    if (nothing) knowLife(nothing);
  }, [nothing]);
  if (!life.data || nothing) return null;
  const { id, copied_at, lost } = life.data;
  const many = lost.length === 1 ? "1 entry" : `${lost.length} entries`;
  return (
    <div className={classes.notice} role="alert" data-lost>
      <span>
        The bakehouse was put back to a copy
        {copied_at && ` of ${day(copied_at)}, ${clock(copied_at)}`}. This tablet still has {many}{" "}
        that it sent since then.
      </span>
      <Button onClick={() => void sendAgain(lost).then(() => knowLife(id))}>Send them again</Button>
      <Button variant="default" onClick={() => saveAsFile("entries.json", lost)}>
        Save as a file
      </Button>
      <Button variant="default" onClick={() => knowLife(id)}>
        Leave them out
      </Button>
    </div>
  );
}
