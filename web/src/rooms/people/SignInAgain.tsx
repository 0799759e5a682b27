/** Somebody was here, and the bakehouse no longer knows it: the screen stays, and the way in is on it. */
import { Button, Modal } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { SignInForm } from "./SignIn";

export function SignInAgain({ session, who }: { session: Schemas["Session"]; who: string }) {
  const [asked, ask] = useState(false);
  return (
    <>
      <div className="bar mind" role="alert">
        <span>
          You are signed out. What you enter is kept on this tablet until somebody signs in.
        </span>
        <Button onClick={() => ask(true)}>Sign in again</Button>
      </div>
      <Modal opened={asked} onClose={() => ask(false)} title="Eight Turn" size={460}>
        <SignInForm session={session} who={who} />
      </Modal>
    </>
  );
}
