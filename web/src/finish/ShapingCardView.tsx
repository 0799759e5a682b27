/** A shaping card: steps as line drawings with a few words, where wash may seal, and what goes wrong. */
import { useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import classes from "./Finish.module.css";
import { OwnCardView } from "./OwnCardView";
import { DRAWINGS } from "./shapingDrawings";

const useCards = () =>
  useQuery({
    queryKey: ["cards"],
    queryFn: () => got(api.GET("/api/cards")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export function StepDrawing({ of }: { of: string }) {
  const drawing = DRAWINGS[of];
  if (!drawing) return null;
  const line = { fill: "none", stroke: "#2b2420", strokeWidth: 1.4 };
  return (
    <svg viewBox="0 0 120 80" aria-hidden="true">
      <defs>
        <marker
          id="goes"
          viewBox="0 0 8 8"
          refX="6"
          refY="4"
          markerWidth="8"
          markerHeight="8"
          orient="auto"
        >
          <path d="M0,0 L8,4 L0,8" fill="none" stroke="#8b4a20" />
        </marker>
      </defs>
      {drawing.dough.map((d) => (
        <path
          key={d}
          d={d}
          fill="var(--dough)"
          fillRule="evenodd"
          stroke="var(--dough-edge)"
          strokeWidth={1.5}
        />
      ))}
      {drawing.filling?.map((d) => (
        <path key={d} d={d} fill="var(--crust)" fillOpacity={0.55} />
      ))}
      {drawing.ink?.map((d) => (
        <path key={d} d={d} {...line} />
      ))}
      {drawing.arrows?.map((d) => (
        <path key={d} d={d} fill="none" stroke="#8b4a20" strokeWidth={1.8} markerEnd="url(#goes)" />
      ))}
    </svg>
  );
}

interface Props {
  product: Schemas["Product"];
  /** Only the steps, for the bench. */
  brief?: boolean;
}

export function ShapingCardView({ product, brief }: Props) {
  const cards = useCards();
  const kitchen = useKitchen();
  const own = kitchen.data?.cards.find((c) => c.key === product.own_card);
  if (own) return <OwnCardView card={own} />;
  const found = cards.data?.find((c) => c.card === product.card);
  if (!found) return null;
  return (
    <div className={classes.card}>
      <ol className={classes.steps}>
        {found.steps.map((step, i) => (
          <li key={step.text}>
            <StepDrawing of={step.drawing} />
            <b>{i + 1}</b> {step.text}
          </li>
        ))}
      </ol>
      {!brief && (
        <>
          <p className={classes.said}>
            {found.seal}
            {found.filling_pct &&
              ` Filling is usually ${found.filling_pct[0]} to ${found.filling_pct[1]} % of the piece.`}
          </p>
          <dl className={classes.faults}>
            {found.faults.map(([sees, why]) => (
              <div key={sees}>
                <dt>{sees}</dt>
                <dd>{why}</dd>
              </div>
            ))}
          </dl>
        </>
      )}
    </div>
  );
}
