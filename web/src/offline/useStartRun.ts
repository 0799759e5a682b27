import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { Problem, type Schemas } from "@/api/client";
import { houseTime } from "@/wire/clock";
import { newId } from "@/wire/id";
import { drop, put, send, waitingAs } from "./outbox";

interface Start {
  plan_id: number;
  /** At which step it is already, and since when. */
  begun?: Schemas["Begun"] | null;
}

/**
 * Start a run, through the outbox; false where it waits there. Throws :class:`Problem` where the
 * bakehouse will not have it: then nothing waits.
 */
export async function started(body: Schemas["StartRun"]): Promise<boolean> {
  if (!waitingAs(body.id)) {
    const at = new Date(houseTime()).toISOString();
    await put(body.id, { what: "start", body: { ...body, started_at: at } }, body.id);
    await send();
  }
  const left = waitingAs(body.id);
  if (!left?.aside) return !left;
  await drop(left);
  throw new Problem(422, left.aside);
}

/** Go on at the bench with a block of the cold store. */
export function useGoOn(block: string) {
  const go = useNavigate();
  const id = useRef(newId());
  return useMutation({
    mutationFn: () => started({ id: id.current, block }),
    onSuccess: (sent) => {
      if (sent) go(`/bench/${id.current}`);
    },
  });
}

/** Take a plan to the bench. However often the button is pressed, and answered or not: one run. */
export function useStartRun() {
  const go = useNavigate();
  const ids = useRef(new Map<number, string>());
  return useMutation({
    mutationFn: async ({ plan_id, begun = null }: Start) => {
      const id = ids.current.get(plan_id) ?? newId();
      ids.current.set(plan_id, id);
      return { id, sent: await started({ id, plan_id, begun }) };
    },
    onSuccess: ({ id, sent }) => {
      if (sent) go(`/bench/${id}`);
    },
  });
}
