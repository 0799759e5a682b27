/** What an ingredient is made of, by the figures of its packet; what these leave open is said. */
import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, byField, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./KitchenRoom.module.css";

type Label = Schemas["PacketLabel"];

const FIGURES: [keyof Label, string][] = [
  ["fat_g", "Fat"],
  ["carbohydrate_g", "Carbohydrate"],
  ["sugar_g", "of which sugars"],
  ["fibre_g", "Fibre"],
  ["protein_g", "Protein"],
  ["salt_g", "Salt"],
];

interface Props {
  like: Schemas["Ingredient"];
  take: (composition: Schemas["Composition"]) => void;
}

export function FromPacket({ like, take }: Props) {
  const { words } = useSaying();
  const [label, setLabel] = useState<Label>({});
  const read = useMutation({
    mutationFn: () => got(api.POST("/api/kitchen/label", { body: { label, like } })),
    onSuccess: (found) => take(found.composition),
  });
  const faults = byField(read.error);
  const named = Object.keys(faults).some((field) => field.startsWith("label."));
  return (
    <details className={classes.packet}>
      <summary>From its packet, g in 100 g</summary>
      <FaultsContext.Provider value={faults}>
        <div className={classes.parts}>
          {FIGURES.map(([name, said]) => (
            <MeasureInput
              key={name}
              label={said}
              quantity="number"
              path={`label.${name}`}
              value={label[name]}
              emptyMeans="not said"
              onChange={(value) => setLabel({ ...label, [name]: value })}
            />
          ))}
        </div>
      </FaultsContext.Provider>
      <Button variant="default" size="xs" loading={read.isPending} onClick={() => read.mutate()}>
        Work it out
      </Button>
      {read.isError && !named && (
        <p role="alert" className="bar mind">
          {sentence(read.error)}
        </p>
      )}
      {read.data?.says.map((text) => (
        <p key={text} className="quiet" role="status">
          {words(text)}
        </p>
      ))}
    </details>
  );
}
