import { LineChart } from "@mantine/charts";
import type { Schemas } from "@/api/client";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { figure, QUANTITIES } from "@/measures/quantity";

const SERIES: { name: Schemas["Probe"]; label: string; color: string; strokeDasharray?: string }[] =
  [
    { name: "dough", label: "dough", color: "#8b4a20" },
    { name: "butter", label: "butter", color: "#a87c05", strokeDasharray: "7 4" },
    { name: "room", label: "room", color: "#3f5f78", strokeDasharray: "2 4" },
  ];

/** A handful of times, far enough apart to be read. */
function ticks(times: number[]): number[] {
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const few = from === to ? 1 : 6;
  return Array.from({ length: few }, (_, i) => from + ((to - from) * i) / Math.max(few - 1, 1));
}

/** Temperatures as they were entered, over the time of the run. */
export function TemperatureChart({ run }: { run: Schemas["RunView"] }) {
  const { likes } = useSaying();
  const readings = [...run.standing.readings].sort((a, b) => a.at.localeCompare(b.at));
  if (readings.length === 0) {
    return <p className="quiet">No temperature was entered in this run.</p>;
  }
  const unit = QUANTITIES.temperature.shown[likes.units];
  const data = readings.map((r) => ({
    at: new Date(r.at).getTime(),
    [r.probe]: Number(figure("temperature", r.value_c, likes.units)),
  }));
  const spoken = readings.map(
    (r) => `${clock(r.at)} ${r.probe} ${figure("temperature", r.value_c, likes.units)} ${unit}`,
  );
  return (
    <figure role="img" aria-label={`Temperatures: ${spoken.join("; ")}.`} style={{ margin: 0 }}>
      <LineChart
        h={240}
        data={data}
        dataKey="at"
        series={SERIES}
        connectNulls
        curveType="linear"
        withLegend
        legendProps={{ verticalAlign: "bottom" }}
        unit={` ${unit}`}
        strokeWidth={2}
        dotProps={{ r: 4 }}
        gridAxis="xy"
        yAxisProps={{ width: 62 }}
        xAxisProps={{
          type: "number",
          scale: "time",
          domain: ["dataMin", "dataMax"],
          ticks: ticks(data.map((d) => d.at)),
          tickFormatter: (at: number) => clock(at),
        }}
        tooltipProps={{ labelFormatter: (at) => clock(Number(at)) }}
      />
    </figure>
  );
}
