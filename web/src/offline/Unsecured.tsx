/** What a tablet goes without at an address that its browser does not trust, and what would bring it. */
import { UnstyledButton } from "@mantine/core";
import { useLocalStorage } from "@mantine/hooks";
import { Link } from "react-router";
import classes from "./Notices.module.css";

/** Whether the browser gives what it gives to trusted addresses only: a start without a network, a screen kept on. */
export const trusted = (): boolean => window.isSecureContext;

export function Unsecured() {
  const [known, setKnown] = useLocalStorage({ key: "eight-turn.unsecured", defaultValue: false });
  if (trusted() || known) return null;
  return (
    <p className={classes.notice} role="status">
      <span>
        At this address Eight Turn cannot open without a connection or keep the screen on; https
        brings both: <Link to="/kitchen#network">Kitchen, Network</Link>.
      </span>
      <UnstyledButton
        className={classes.known}
        onClick={() => setKnown(true)}
        aria-label="Do not show this again on this tablet"
      >
        ×
      </UnstyledButton>
    </p>
  );
}
