import { useKitchen } from "@/api/queries";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepRest } from "../parts/StepParts";

const SETTING = /^crank\.(\d)_mm$/;

/** Through a hand-cranked roller, from its widest setting to a chosen one. */
function CrankPanel(panel: PanelProps<"crank">) {
  const { step, made, set, worked } = panel;
  const { figure } = useSaying();
  const settings = (useKitchen().data?.table ?? []).flatMap((row) => {
    const n = SETTING.exec(row.key)?.[1];
    return n && row.value > 0
      ? [{ value: n, label: n, hint: `${figure("length", row.value)} mm` }]
      : [];
  });
  return (
    <>
      <Choice
        label="Down to setting"
        tight
        value={String(step.to_setting)}
        options={settings}
        onChange={(v) => set({ to_setting: Number(v) }, "to_setting")}
      />
      {made && (
        <dl className={classes.readouts}>
          <Readout worked={worked} label="Each strip" value="" size={made.strip} />
          <Readout
            worked={worked}
            label="Thick"
            value={`${figure("length", made.strip.thickness_mm)} mm`}
          />
          <Readout worked={worked} label="Strips" value={String(made.strips)} />
        </dl>
      )}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("crank", {
  Glyph: () => (
    <>
      <circle cx={36} cy={14} r={9} fill="var(--surface)" stroke="var(--ink)" />
      <circle cx={36} cy={32} r={9} fill="var(--surface)" stroke="var(--ink)" />
      <path d="M8,21 H30 M42,23 H66" stroke="var(--dough)" strokeWidth={5} />
      <path d="M36,14 L52,6 V12" fill="none" stroke="var(--ink)" />
    </>
  ),
  facts: ({ step }) => `setting ${step.to_setting}`,
  Panel: CrankPanel,
  views: ["sheet", "warmth"],
});
