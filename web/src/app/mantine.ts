/**
 * Mantine's styles: of the parts that are used, in Mantine's order; tests/styles.test.ts knows which. They
 * lie in a layer, and app.css in the same one, so that a room's styles win in whatever order they come.
 */
import "@mantine/core/styles/baseline.layer.css";
import "@mantine/core/styles/global.layer.css";
import "@mantine/core/styles/ScrollArea.layer.css";
import "@mantine/core/styles/UnstyledButton.layer.css";
import "@mantine/core/styles/VisuallyHidden.layer.css";
import "@mantine/core/styles/Paper.layer.css";
import "@mantine/core/styles/Overlay.layer.css";
import "@mantine/core/styles/Popover.layer.css";
import "@mantine/core/styles/Loader.layer.css";
import "@mantine/core/styles/ActionIcon.layer.css";
import "@mantine/core/styles/CloseButton.layer.css";
import "@mantine/core/styles/ModalBase.layer.css";
import "@mantine/core/styles/Input.layer.css";
import "@mantine/core/styles/FloatingIndicator.layer.css";
import "@mantine/core/styles/Combobox.layer.css";
import "@mantine/core/styles/InlineInput.layer.css";
import "@mantine/core/styles/CheckboxCard.layer.css";
import "@mantine/core/styles/CheckboxIndicator.layer.css";
import "@mantine/core/styles/Checkbox.layer.css";
import "@mantine/core/styles/Button.layer.css";
import "@mantine/core/styles/Chip.layer.css";
import "@mantine/core/styles/Kbd.layer.css";
import "@mantine/core/styles/Menu.layer.css";
import "@mantine/core/styles/Modal.layer.css";
import "@mantine/core/styles/Pill.layer.css";
import "@mantine/core/styles/PillsInput.layer.css";
import "@mantine/core/styles/PasswordInput.layer.css";
import "@mantine/core/styles/Progress.layer.css";
import "@mantine/core/styles/SegmentedControl.layer.css";
import "@mantine/core/styles/Slider.layer.css";
