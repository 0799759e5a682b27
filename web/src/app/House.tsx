import { Button } from "@mantine/core";
import { Suspense } from "react";
import { Link, NavLink, Outlet, useLocation } from "react-router";
import type { Schemas } from "@/api/client";
import { Notices, waitingOf } from "@/offline/Notices";
import { useOutbox } from "@/offline/outbox";
import { useNewer } from "@/offline/worker";
import { PersonMenu } from "@/rooms/people/PersonMenu";
import { useLostSince } from "@/wire/connection";
import { lazily } from "@/wire/lazily";
import { Mark } from "./Mark";
import { Kept, Waiting } from "./states";

// Seldom wanted: fetched when something was refused.
const PutAside = lazily(async () => (await import("@/offline/PutAside")).PutAside);

const ROOMS = [
  ["/today", "Today"],
  ["/plans", "Plans"],
  ["/day", "Day"],
  ["/bench", "Bench"],
  ["/book", "Book"],
  ["/kitchen", "Kitchen"],
] as const;

/** What is true wherever one is: no connection, entries that wait, a newer version. */
function Strip() {
  const lostSince = useLostSince();
  const outbox = useOutbox();
  const newer = useNewer();
  const waiting = waitingOf(outbox, lostSince);
  return (
    <>
      <Notices waiting={waiting} lostSince={lostSince} />
      <Suspense>
        {outbox
          .filter((e) => e.aside)
          .map((entry) => (
            <PutAside key={entry.id} entry={entry} />
          ))}
      </Suspense>
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
