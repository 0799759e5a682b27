/** How a mark or a clock was got, and the rows of the kitchen it rests on, each a way there. */
import { Popover, UnstyledButton } from "@mantine/core";
import { Link } from "react-router";
import { useKitchen } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { useSaying } from "@/measures/likes";
import { OF_UNIT } from "@/measures/quantity";
import { capital } from "@/measures/words";
import classes from "./HowGot.module.css";

export function HowGot({ of }: { of: (string | null | undefined)[] }) {
  const { grounds, said } = useTrade();
  const { say } = useSaying();
  const table = new Map(useKitchen().data?.table.map((row) => [row.key, row]));
  const known = [...new Set(of)].flatMap((cause) => {
    const ground = cause ? grounds[cause] : undefined;
    return cause && ground ? [{ cause, ...ground }] : [];
  });
  if (known.length === 0) return null;
  return (
    <Popover width={310} position="left">
      <Popover.Target>
        <UnstyledButton className={classes.how}>how this was worked out</UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown className={classes.got}>
        {known.map(({ cause, says, rows }) => (
          <section key={cause}>
            {known.length > 1 && <b>{capital(said("cause", cause))}</b>}
            <p>{says}</p>
            <ul>
              {rows.map((key) => {
                const row = table.get(key);
                const quantity = row && OF_UNIT[row.unit];
                return (
                  row && (
                    <li key={key}>
                      <Link to={`/kitchen?find=${encodeURIComponent(row.label)}`}>
                        {capital(row.label)}
                      </Link>{" "}
                      {quantity ? say(quantity, row.value) : `${row.value} ${row.unit}`},{" "}
                      {row.origin === "yours" ? "yours" : row.source}
                    </li>
                  )
                );
              })}
            </ul>
          </section>
        ))}
      </Popover.Dropdown>
    </Popover>
  );
}
