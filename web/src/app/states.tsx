/** What a room shows when it has nothing else to show yet. */
import { Button, Loader } from "@mantine/core";
import { Component, type ReactNode } from "react";
import { Link } from "react-router";
import { Problem } from "@/api/client";
import { sentence } from "@/api/queries";

/** Where one is, for the browser's tab and for whoever hears the page. */
export const Title = ({ children }: { children: string }) => (
  <title>{`${children} · Eight Turn`}</title>
);

export function Waiting({ what }: { what: string }) {
  return (
    <div className="empty" role="status">
      <Loader size="sm" color="crust" type="dots" />
      <p className="quiet">Fetching {what}.</p>
    </div>
  );
}

/** Keeps a fault in one room from taking the house with it. */
export class Kept extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <div className="empty" role="alert">
        <h2>This screen broke</h2>
        <p>What you entered is kept. Reload to go on; if it breaks again, tell whoever keeps it.</p>
        <Button onClick={() => window.location.reload()}>Reload</Button>
      </div>
    );
  }
}

/** Nothing at this address, or the reason why it could not be fetched. */
export function Nothing({ error, retry }: { error?: unknown; retry?: () => void }) {
  const missing = !error || (error instanceof Problem && error.status === 404);
  return (
    <div className="empty" role="alert">
      <h2>{missing ? "Nothing here" : "That did not work"}</h2>
      <p>{error ? sentence(error) : "There is no room at this address."}</p>
      {retry && !missing ? (
        <Button variant="default" onClick={retry}>
          Try again
        </Button>
      ) : (
        <Link to="/plans">To the plans</Link>
      )}
    </div>
  );
}
