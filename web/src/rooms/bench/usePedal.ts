/** A key or a foot pedal presses the main button: whatever is the one thing to press. */
import { useWindowEvent } from "@mantine/hooks";

// what pedals for turning pages send, and the keys that one finds with a floury elbow
const KEYS = new Set(["PageDown", "Enter", " "]);

export function usePedal(): void {
  useWindowEvent("keydown", (event) => {
    if (!KEYS.has(event.key) || event.repeat || event.ctrlKey || event.metaKey || event.altKey)
      return;
    const target = event.target instanceof Element ? event.target : null;
    // on a control or in a dialog the key is the control's own; a pedal's page key never is
    if (document.querySelector("[role=dialog]")) return;
    if (event.key !== "PageDown" && target?.closest("a, button, input, textarea, select")) return;
    const go = document.querySelector<HTMLElement>("[data-go]");
    if (!go) return;
    event.preventDefault();
    go.click();
  });
}
