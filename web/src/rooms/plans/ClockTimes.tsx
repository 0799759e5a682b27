import { Button, Modal } from "@mantine/core";
import type { Worked } from "@/api/steps";
import { MomentInput } from "@/measures/MomentInput";
import { span } from "@/measures/quantity";
import { later, useBegins } from "./clockTimes";

interface Props {
  planId: number;
  worked: Worked;
  close: () => void;
}

/** When it is to begin or to be done: each step then stands with its hour. */
export function ClockTimes({ planId, worked, close }: Props) {
  const [begins, setBegins] = useBegins(planId);
  const whole = worked.total_min;
  return (
    <Modal opened onClose={close} title="With clock times">
      <p className="quiet">
        It takes {span(whole)} from the first step to the last. Say one of the two; the other
        follows.
      </p>
      <MomentInput label="Begins" value={begins} onChange={setBegins} />
      <MomentInput
        label="Done"
        value={begins && later(begins, whole)}
        onChange={(at) => setBegins(at && later(at, -whole))}
      />
      <Button mt={16} mr={8} onClick={close}>
        Show them
      </Button>
      {begins && (
        <Button
          mt={16}
          variant="default"
          onClick={() => {
            setBegins(null);
            close();
          }}
        >
          Without clock times
        </Button>
      )}
    </Modal>
  );
}
