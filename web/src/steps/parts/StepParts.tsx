/** The inputs every kind of step is made of, each for one field of the step. */
import { NativeSelect, Textarea } from "@mantine/core";
import { type ReactNode, useContext } from "react";
import type { Do, StepOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import type { QuantityName } from "@/measures/quantity";
import { Assumptions } from "./Assumptions";
import type { PanelProps } from "./props";
import { RestInput } from "./RestInput";

interface OfStep<D extends Do> {
  panel: PanelProps<D>;
}

interface MeasureProps<D extends Do> extends OfStep<D> {
  name: keyof StepOf<D> & string;
  label: string;
  quantity: QuantityName;
  help?: ReactNode;
  /** What an empty field means, where it may be empty. */
  emptyMeans?: string;
}

/** A measure that is one field of the step. */
export function StepMeasure<D extends Do>({ panel, name, emptyMeans, ...rest }: MeasureProps<D>) {
  const { step, at, set } = panel;
  return (
    <MeasureInput
      {...rest}
      path={`${at}.${name}`}
      value={step[name] as number | null | undefined}
      emptyMeans={emptyMeans}
      onChange={(v) => (v !== null || emptyMeans) && set({ [name]: v } as Partial<StepOf<D>>, name)}
    />
  );
}

interface RestProps<D extends Do> extends OfStep<D> {
  label: string;
  proofer?: boolean;
}

/** The rest after the step, with its window today. */
export function StepRest<D extends Do>({ panel, label, proofer }: RestProps<D>) {
  const { step, stop, at, set, warmth } = panel;
  return (
    <RestInput
      label={label}
      proofer={proofer}
      path={`${at}.rest`}
      rest={step.rest}
      window={warmth?.windows.find((w) => w.stop === stop.key)}
      onChange={(rest) => set({ rest } as Partial<StepOf<D>>, "rest")}
    />
  );
}

/** What the bench should read beside what the core says of the step. */
export function StepWords<D extends Do>({ panel }: OfStep<D>) {
  const { step, at, set } = panel;
  const { words } = useSaying();
  const faults = useContext(FaultsContext);
  return (
    <Textarea
      label="Words for the bench"
      autosize
      minRows={1}
      maxRows={5}
      value={step.words}
      error={words(faults[`${at}.words`] ?? "")}
      onChange={(e) => set({ words: e.currentTarget.value } as Partial<StepOf<D>>, "words")}
    />
  );
}

interface AssumesProps<D extends Do> extends OfStep<D> {
  title?: string;
  /** False where the words stand among the step's own inputs. */
  wordsHere?: boolean;
  children?: ReactNode;
}

/** What a step takes for granted: its minutes, what it is worked on, and words to go with it. */
export function StepAssumes<D extends Do>(props: AssumesProps<D>) {
  const { panel, title, wordsHere = true, children } = props;
  const { step, stop, set } = panel;
  const { options } = useTrade();
  const put = (part: object, name: string) => set(part as Partial<StepOf<D>>, name);
  return (
    <Assumptions minutesKey={`minutes.${stop.do}`} title={title}>
      {children}
      <StepMeasure
        panel={panel}
        name={"bench_min" as keyof StepOf<D> & string}
        label="Minutes at the bench"
        quantity="time"
        emptyMeans="as in the kitchen"
      />
      <NativeSelect
        label="Worked on"
        value={step.on}
        data={options("surface")}
        onChange={(e) => put({ on: e.currentTarget.value }, "on")}
      />
      <NativeSelect
        label="Surface beforehand"
        value={step.chilled}
        data={options("chilled")}
        onChange={(e) => put({ chilled: e.currentTarget.value }, "chilled")}
      />
      {wordsHere && <StepWords panel={panel} />}
    </Assumptions>
  );
}
