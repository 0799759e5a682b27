import { Link, NavLink, Outlet, useLocation } from "react-router";
import type { Schemas } from "@/api/client";
import { PersonMenu } from "@/rooms/people/PersonMenu";
import { Mark } from "./Mark";
import { Kept } from "./states";

const ROOMS = [
  ["/today", "Today"],
  ["/plans", "Plans"],
  ["/day", "Day"],
  ["/bench", "Bench"],
  ["/book", "Book"],
  ["/kitchen", "Kitchen"],
] as const;

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
        <Kept key={useLocation().pathname}>
          <Outlet context={me} />
        </Kept>
      </main>
    </div>
  );
}
