/** A fridge or a freezer with its door open: its shelves, and what lies on each. */
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import type { BlockView } from "@/blocks/blocks";
import { Package } from "@/blocks/Package";
import { useSaying } from "@/measures/likes";
import { capital } from "@/measures/words";
import classes from "./Store.module.css";

interface Props {
  place: Schemas["Shelved"];
  blocks: BlockView[];
  chosen: string | undefined;
  choose: (id: string) => void;
}

export function Cabinet({ place, blocks, chosen, choose }: Props) {
  const { said } = useTrade();
  const { say, words } = useSaying();
  const full = place.holds > 0 && blocks.length >= place.holds;
  // a shelf that there is no more still shows what lies on it
  const most = Math.max(place.shelves, ...blocks.map((b) => b.standing.shelf));
  return (
    <section aria-label={capital(said("place", place.place))} className={classes.cabinet}>
      <header>
        <h2>
          {capital(said("place", place.place))} {words(`{${place.c}|°C}`)}
        </h2>
        <span className={full ? classes.mind : "quiet"}>
          {place.holds > 0
            ? `${blocks.length} of ${place.holds} places${full ? ", full" : ""}`
            : `${blocks.length} ${blocks.length === 1 ? "block" : "blocks"}`}
        </span>
      </header>
      <div className={classes.inside} data-place={place.place}>
        {Array.from({ length: most }, (_, n) => n + 1).map((shelf) => (
          <ul key={shelf} className={classes.shelf} aria-label={`Shelf ${shelf} from the top`}>
            {blocks
              .filter((b) => b.standing.shelf === shelf)
              .map((b) => (
                <li key={b.id}>
                  <button
                    type="button"
                    className={classes.block}
                    aria-pressed={b.id === chosen}
                    onClick={() => choose(b.id)}
                  >
                    <span className={classes.board}>
                      <Package
                        holds={b.block.holds}
                        grams={b.standing.grams}
                        turns={b.block.turns ?? 0}
                        pieces={b.standing.pieces}
                        urgent={b.urgent}
                      />
                    </span>
                    <span className={classes.words}>
                      <span className={classes.named}>
                        <b className={classes.mark}>{b.mark}</b> {b.block.name}
                      </span>
                      <span className="quiet">
                        {b.what} · {say("mass", Math.round(b.standing.grams))}
                      </span>
                      <span className={b.urgent ? classes.mind : "quiet"}>{b.state}</span>
                    </span>
                  </button>
                </li>
              ))}
          </ul>
        ))}
      </div>
    </section>
  );
}
