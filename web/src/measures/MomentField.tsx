import "@mantine/dates/styles.layer.css";
import "dayjs/locale/en-gb";
import { DatePickerInput, TimePicker } from "@mantine/dates";
import { date, fromWall, wall } from "@/app/time";
import classes from "./MomentField.module.css";

export interface MomentFieldProps {
  label: string;
  /** The moment, as the bakehouse writes it; null while there is none. */
  value: string | null | undefined;
  onChange: (at: string | null) => void;
  error?: string;
  /** Whether it may be left empty. */
  clearable?: boolean;
  disabled?: boolean;
}

const MORNING = "06:00";

/** The day and the hour of a moment, each an input of its own. */
export function MomentField({
  label,
  value,
  onChange,
  error,
  clearable,
  disabled,
}: MomentFieldProps) {
  const [day = "", hour = ""] = value ? wall(value).split("T") : [];
  const give = (on: string, at: string) => onChange(on ? fromWall(`${on}T${at || MORNING}`) : null);
  return (
    <fieldset className={classes.moment} disabled={disabled}>
      <legend>{label}</legend>
      <DatePickerInput
        aria-label={`${label}: ${day ? date(day) : "day"}`}
        locale="en-gb"
        firstDayOfWeek={1}
        valueFormatter={() => (day ? date(day) : "")}
        placeholder="day"
        value={day || null}
        clearable={clearable}
        clearButtonProps={{ "aria-label": `${label}: none` }}
        error={error !== undefined && error !== ""}
        popoverProps={{ withinPortal: true }}
        onChange={(on) => give(on ?? "", hour)}
      />
      <TimePicker
        format="24h"
        hoursInputLabel={`${label}: hour`}
        minutesInputLabel={`${label}: minute`}
        value={hour}
        disabled={!day}
        error={error !== undefined && error !== ""}
        onChange={(at) => day && at && give(day, at.slice(0, 5))}
      />
      {error && (
        <p role="alert" className={classes.error}>
          {error}
        </p>
      )}
    </fieldset>
  );
}
