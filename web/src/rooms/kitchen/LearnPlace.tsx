/** Learn this kitchen: readings of a probe say how hard a fridge or freezer really cools. */
import { Button, FileButton, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, got, type Schemas, sendFile } from "@/api/client";
import { queries, sentence, useSimulated } from "@/api/queries";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./LearnPlace.module.css";
import { ReadingsChart } from "./ReadingsChart";

type Reading = Schemas["ProbeReading"];
type Place = "fridge" | "freezer";

const STREAM_MS = 60; // a minute of the simulated probe

export function LearnPlace({ head }: { head: boolean }) {
  const { words } = useSaying();
  const [place, setPlace] = useState<Place>("fridge");
  const [thickness_mm, setThickness] = useState(25);
  const [start_c, setStart] = useState(18);
  const [readings, setReadings] = useState<Reading[]>([]);
  const [coming, setComing] = useState<Reading[]>([]);
  const taken: Schemas["PlaceReadings"] = { place, thickness_mm, start_c, readings };
  const begin = (next: Reading[]) => {
    setComing([]);
    setReadings(next);
    learn.reset();
  };
  const learn = useMutation({
    mutationFn: (of: Schemas["PlaceReadings"]) => got(api.POST("/api/learn", { body: of })),
  });
  const keep = useMutation({
    mutationFn: () => got(api.POST("/api/learn/keep", { body: taken })),
    onSuccess: () => {
      queries.invalidateQueries({ queryKey: ["kitchen"] });
      queries.removeQueries({ queryKey: ["warmth"] });
    },
  });
  const table = useMutation({
    mutationFn: (file: File) => sendFile<Reading[]>("/api/learn/csv", file),
    onSuccess: begin,
  });
  const demo = useSimulated();
  const simulated = useMutation({
    mutationFn: () => got(api.POST("/api/learn/simulated", { body: { ...taken, readings: [] } })),
    onSuccess: (all) => {
      begin([]);
      setComing(all);
    },
  });
  // The simulated probe speaks a minute at a time, only faster.
  useEffect(() => {
    const [next, ...rest] = coming;
    if (!next) return;
    const soon = setTimeout(() => {
      setReadings((was) => [...was, next]);
      setComing(rest);
    }, STREAM_MS);
    return () => clearTimeout(soon);
  }, [coming]);
  const failed = table.error ?? simulated.error ?? learn.error ?? keep.error;
  const fit = learn.data?.fit;
  return (
    <section className={classes.learn} aria-labelledby="learnTitle">
      <h2 id="learnTitle">Learn this kitchen</h2>
      <p className="quiet">
        Put a probe into the middle of a wrapped dough, note how thick and how warm it went in, and
        let it rest for an hour. The readings say how hard this place cools.
      </p>
      <div className={classes.inputs}>
        <Choice
          label="Place"
          tight
          value={place}
          options={[
            { value: "fridge", label: "Fridge" },
            { value: "freezer", label: "Freezer" },
          ]}
          onChange={setPlace}
        />
        <MeasureInput
          label="Thickness of the dough"
          quantity="length"
          path="thickness_mm"
          value={thickness_mm}
          onChange={(v) => v !== null && setThickness(v)}
        />
        <MeasureInput
          label="It went in at"
          quantity="temperature"
          path="start_c"
          value={start_c}
          onChange={(v) => v !== null && setStart(v)}
        />
      </div>
      <div className={classes.ways}>
        <FileButton accept=".csv,.txt,text/csv" onChange={(file) => file && table.mutate(file)}>
          {(props) => (
            <Button variant="default" {...props}>
              Readings from a table
            </Button>
          )}
        </FileButton>
        {demo && (
          <Button
            variant="default"
            loading={simulated.isPending}
            onClick={() => simulated.mutate()}
          >
            Try the simulated probe
          </Button>
        )}
        <Probes head={head} use={begin} />
      </div>
      {failed && (
        <div className="bar mind" role="alert">
          {sentence(failed)}
        </div>
      )}
      {readings.length > 0 && (
        <>
          <p role="status">
            {readings.length} readings{coming.length > 0 && ", and more to come"}.
          </p>
          <ReadingsChart readings={readings} fit={fit} />
          <div className={classes.ways}>
            <Button
              disabled={coming.length > 0}
              loading={learn.isPending}
              onClick={() => learn.mutate(taken)}
            >
              Learn from these readings
            </Button>
            {learn.data && head && !keep.data && (
              <Button loading={keep.isPending} onClick={() => keep.mutate()}>
                Use it for this kitchen
              </Button>
            )}
          </div>
          {learn.data && <p role="status">{words(learn.data.says)}</p>}
          {keep.data && (
            <p role="status">
              It is kept as this kitchen's own, in the table under Cold; “Back” there brings the
              published value again.
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** Real probes: each has a token and posts to the same address. */
function Probes({ head, use }: { head: boolean; use: (readings: Reading[]) => void }) {
  const [name, setName] = useState("");
  const probes = useQuery({
    queryKey: ["probes"],
    queryFn: () => got(api.GET("/api/probes")),
    refetchInterval: 30_000,
  });
  const make = useMutation({
    mutationFn: () => got(api.POST("/api/probes", { body: { name } })),
    onSuccess: () => {
      setName("");
      queries.invalidateQueries({ queryKey: ["probes"] });
    },
  });
  const read = useMutation({
    mutationFn: (probe_id: number) =>
      got(api.GET("/api/probes/{probe_id}/readings", { params: { path: { probe_id } } })),
    onSuccess: use,
  });
  const known = probes.data ?? [];
  return (
    <>
      {known.length > 0 && (
        <NativeSelect
          aria-label="Readings of a probe"
          value=""
          data={[
            { value: "", label: "Readings of a probe" },
            ...known.map((p) => ({ value: String(p.id), label: `${p.name}: ${p.samples}` })),
          ]}
          onChange={(e) => e.currentTarget.value && read.mutate(Number(e.currentTarget.value))}
        />
      )}
      {head && (
        <form
          className={classes.probe}
          onSubmit={(e) => {
            e.preventDefault();
            make.mutate();
          }}
        >
          <TextInput
            aria-label="Name of a new probe"
            placeholder="Name of a new probe"
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <Button type="submit" variant="default" disabled={!name.trim()}>
            Add this probe
          </Button>
        </form>
      )}
      {make.data?.token && (
        <p role="status" className={classes.token}>
          {make.data.name} may post to /api/probes/readings with this token, shown only now:{" "}
          <code>{make.data.token}</code>
        </p>
      )}
    </>
  );
}
