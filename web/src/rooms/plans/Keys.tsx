import { Kbd, Modal } from "@mantine/core";

const KEYS: [string[], string][] = [
  [["←", "→"], "the step before, the step after (on the strip)"],
  [["Home", "End"], "the first step, the last step (on the strip)"],
  [["Tab"], "on to the inputs of the step"],
  [["M"], "the next step that needs minding"],
  [["←", "→"], "on an edge or a mark of a drawing: a step less, a step more"],
  [["Page ↑", "Page ↓"], "there: ten steps"],
  [["Esc"], "there: as it was"],
  [["Ctrl", "Z"], "undo"],
  [["Ctrl", "Shift", "Z"], "redo"],
  [["?"], "these keys"],
];

/** The keys of the planning side, shown on demand. */
export function Keys({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys">
      <dl style={{ display: "grid", gridTemplateColumns: "auto 1fr", gap: "10px 18px", margin: 0 }}>
        {KEYS.map(([keys, what]) => (
          <div key={what} style={{ display: "contents" }}>
            <dt>
              {keys.map((key) => (
                <Kbd key={key} size="md" mr={4}>
                  {key}
                </Kbd>
              ))}
            </dt>
            <dd style={{ margin: 0 }}>{what}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
