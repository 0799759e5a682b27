import { Button, Modal, NativeSelect } from "@mantine/core";
import { useState } from "react";
import { byField } from "@/api/client";
import { sentence } from "@/api/queries";
import type { Worked } from "@/api/steps";
import { MomentInput } from "@/measures/MomentInput";
import { useStartRun } from "@/offline/useStartRun";
import { houseTime } from "@/wire/clock";

interface Props {
  planId: number;
  worked: Worked;
  opened: boolean;
  close: () => void;
}

/** A dough that was begun before the tablet was touched: where it is, and since when. */
export function BegunAlready({ planId, worked, opened, close }: Props) {
  const stops = worked.strip.slice(1);
  const [stop, setStop] = useState(stops[0]?.key ?? "");
  const [at, setAt] = useState(() => new Date(houseTime()).toISOString());
  const start = useStartRun();
  const faults = byField(start.error);
  const named = faults["begun.stop"] ?? faults["begun.at"];
  return (
    <Modal opened={opened} onClose={close} title="Begun already?">
      <p className="quiet">
        What came before is taken to have gone as planned. Every time can be put right in the
        record.
      </p>
      <NativeSelect
        label="Now at step"
        value={stop}
        data={stops.map((s) => ({ value: s.key, label: s.name }))}
        error={faults["begun.stop"]}
        onChange={(e) => setStop(e.currentTarget.value)}
      />
      <MomentInput
        label="This step began"
        value={at}
        error={faults["begun.at"]}
        onChange={(when) => when && setAt(when)}
      />
      {start.isError && !named && (
        <p role="alert" className="bar mind">
          {sentence(start.error)}
        </p>
      )}
      <Button
        mt={16}
        loading={start.isPending}
        onClick={() => start.mutate({ plan_id: planId, begun: { stop, at } })}
      >
        Take it to the bench
      </Button>
    </Modal>
  );
}
