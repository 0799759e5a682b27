import { Collapse, UnstyledButton } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { ReactNode } from "react";
import { useKitchen } from "@/api/queries";

interface Props {
  minutesKey: string;
  title?: string;
  children: ReactNode;
}

/** What a stop takes for granted: seldom changed, always there, with where it comes from. */
export function Assumptions({ minutesKey, title, children }: Props) {
  const [open, { toggle }] = useDisclosure(false);
  const kitchen = useKitchen();
  const minutes = kitchen.data?.table.find((d) => d.key === minutesKey);
  return (
    <div>
      <UnstyledButton
        onClick={toggle}
        aria-expanded={open}
        fz={14}
        c="var(--quiet)"
        td="underline dotted"
        py={4}
      >
        {title ?? "What this assumes"}
      </UnstyledButton>
      <Collapse expanded={open} transitionDuration={0}>
        <div style={{ display: "grid", gap: 10, paddingTop: 6 }}>
          {children}
          {minutes && (
            <small className="quiet">
              {minutes.value} min to {minutes.label}: {minutes.origin}. Change it for every plan in
              the Kitchen.
            </small>
          )}
        </div>
      </Collapse>
    </div>
  );
}
