import { Button } from "@mantine/core";
import { Suspense } from "react";
import { Link, NavLink, Outlet, useLocation } from "react-router";
import type { Schemas } from "@/api/client";
import { AfterCopy } from "@/offline/AfterCopy";
import { Notices, waitingOf } from "@/offline/Notices";
import { useOutbox } from "@/offline/outbox";
import { Unsecured } from "@/offline/Unsecured";
import { useNewer } from "@/offline/worker";
import { PersonMenu } from "@/rooms/people/PersonMenu";
import { useLostSince } from "@/wire/connection";
import { lazily } from "@/wire/lazily";
import { Mark } from "./Mark";
import { Kept, Waiting } from "./states";

// Seldom wanted: fetched when something was refused.
const Refused = lazily(async () => (await import("@/offline/Refused")).Refused);

const ROOMS = [
  ["/today", "Today"],
  ["/plans", "Plans"],
  ["/day", "Day"],
  ["/bench", "Bench"],
  ["/store", "Cold store"],
  ["/book", "Book"],
  ["/lessons", "Lessons"],
  ["/kitchen", "Kitchen"],
] as const;

/** Where it matters that the screen stays on and opens without a network. */
const AT_THE_BENCH = /^\/(bench|today)/;

/** What is true wherever one is: no connection, entries that wait, a newer version. */
function Strip() {
  const lostSince = useLostSince();
  const outbox = useOutbox();
  const newer = useNewer();
  const waiting = waitingOf(outbox, lostSince);
  return (
    <>
      <Notices waiting={waiting} lostSince={lostSince} />
      <AfterCopy />
      {AT_THE_BENCH.test(useLocation().pathname) && <Unsecured />}
      <Suspense>{outbox.some((e) => e.aside || e.either || e.nowhere) && <Refused />}</Suspense>
      {newer && (
        <p className="bar" role="status">
          <span>A newer Eight Turn is here. It is taken when you say so.</span>
          <Button variant="default" onClick={newer}>
            Take it now
          </Button>
        </p>
      )}
    </>
  );
}

/** The rail of rooms, and the room one is in. */
export function House({ me }: { me: Schemas["Me"] }) {
  return (
    <div className="house">
      <nav className="rail" aria-label="Pages">
        <a href="#room" className="skip">
          Skip to content
        </a>
        <Link to="/" className="markLink" aria-label="Eight Turn">
          <Mark className="mark" />
        </Link>
        {ROOMS.map(([to, name]) => (
          <NavLink key={to} to={to}>
            {name}
          </NavLink>
        ))}
        <div className="person">
          <PersonMenu me={me} />
        </div>
      </nav>
      <main className="room" id="room" tabIndex={-1}>
        <Strip />
        <Kept key={useLocation().pathname}>
          <Suspense fallback={<Waiting what="the room" />}>
            <Outlet context={me} />
          </Suspense>
        </Kept>
      </main>
    </div>
  );
}
