/** What a sheet is rolled to: a thickness, a size, or one side and either; what is empty follows. */
import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./panels.module.css";

type To = Pick<Schemas["LastSheet"], "roll_to_mm" | "width_mm" | "length_mm">;
type Side = keyof To;

interface Props {
  to: To;
  at: string;
  /** The sheet as it comes: what is not chosen is read from it. */
  made?: { length_mm: number; width_mm: number; thickness_mm: number };
  set: (part: Partial<To>, name: string) => void;
}

/** The choice with one more side of it chosen: of three sizes one must follow. */
export function chosen(to: To, side: Side, value: number | null, made?: Props["made"]): To {
  const { roll_to_mm, width_mm, length_mm } = to;
  const next: To = { roll_to_mm, width_mm, length_mm, [side]: value };
  if (next.roll_to_mm && next.width_mm && next.length_mm) {
    return side === "length_mm" ? { ...next, roll_to_mm: null } : { ...next, length_mm: null };
  }
  if (!next.roll_to_mm && !next.length_mm && made) {
    // something must be rolled to: the size it has now
    return side === "roll_to_mm"
      ? { ...next, length_mm: Math.round(made.length_mm) }
      : { ...next, roll_to_mm: Math.round(10 * made.thickness_mm) / 10 };
  }
  return next;
}

function usePut({ to, set, made }: Props) {
  return (side: Side) => (value: number | null) => set(chosen(to, side, value, made), side);
}

export function RollToThickness(props: Props) {
  const { to, at, made } = props;
  const { say } = useSaying();
  const follows = made
    ? `${say("length", Math.round(10 * made.thickness_mm) / 10)} follows`
    : "follows";
  return (
    <MeasureInput
      label="Roll to"
      quantity="length"
      path={`${at}.roll_to_mm`}
      value={to.roll_to_mm}
      emptyMeans={follows}
      onChange={usePut(props)("roll_to_mm")}
    />
  );
}

export function RollToSize(props: Props) {
  const { to, at, made, set } = props;
  const { say, figure } = useSaying();
  const put = usePut(props);
  const table = new Map(useKitchen().data?.table.map((d) => [d.key, d.value]));
  const tray = { length_mm: table.get("tray.length_mm"), width_mm: table.get("tray.width_mm") };
  // in half a column there is no room for more than the figure
  const length = made ? `= ${figure("length", Math.round(made.length_mm))}` : "follows";
  return (
    <>
      <div className={classes.pair}>
        <MeasureInput
          label="Width"
          quantity="length"
          path={`${at}.width_mm`}
          value={to.width_mm}
          emptyMeans="as it comes"
          onChange={put("width_mm")}
        />
        <MeasureInput
          label="Length"
          quantity="length"
          path={`${at}.length_mm`}
          value={to.length_mm}
          emptyMeans={length}
          onChange={put("length_mm")}
        />
      </div>
      {tray.length_mm && tray.width_mm && (
        <Button
          variant="default"
          size="xs"
          onClick={() => set({ ...tray, roll_to_mm: null }, "length_mm")}
        >
          As big as the tray, {say("length", tray.length_mm)} × {say("length", tray.width_mm)}
        </Button>
      )}
    </>
  );
}
