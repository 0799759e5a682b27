import { type CSSVariablesResolver, createTheme, type MantineColorsTuple } from "@mantine/core";

// Crust brown: the main action and nothing else. Butter and dough colours stay with the materials.
const crust: MantineColorsTuple = [
  "#FBF1E8",
  "#F3DFCD",
  "#E6BD99",
  "#DA9C68",
  "#C77B3F",
  "#A85D29",
  "#8B4A20",
  "#773E1A",
  "#633415",
  "#4E2910",
];

export const theme = createTheme({
  primaryColor: "crust",
  primaryShade: 6,
  colors: { crust },
  white: "#FFFCF6",
  black: "#2B2420",
  fontFamily: '"Hanken Grotesk Variable", system-ui, sans-serif',
  headings: { fontFamily: '"Fraunces Variable", Georgia, serif', fontWeight: "600" },
  defaultRadius: 8,
  focusRing: "auto",
  respectReducedMotion: true,
  components: {
    Popover: { defaultProps: { shadow: "md", withArrow: true } },
    Tooltip: { defaultProps: { withArrow: true, openDelay: 300, color: "#2B2420" } },
    Modal: {
      defaultProps: {
        closeButtonProps: { "aria-label": "Close", size: 44 },
        transitionProps: { duration: 0 },
        centered: true,
      },
    },
    Menu: { defaultProps: { transitionProps: { duration: 0 } } },
  },
});

/** Mantine's own greys, in our paper and ink. */
export const inOurColours: CSSVariablesResolver = () => ({
  variables: {},
  light: {
    "--mantine-color-body": "#fffcf6",
    "--mantine-color-default-border": "#8d7f70",
    "--mantine-color-default-hover": "#f5efe4",
    "--mantine-color-dimmed": "#6b5f55",
    "--mantine-color-placeholder": "#7a6d61",
    "--mantine-color-error": "#a93f27",
    "--mantine-color-disabled": "#ede4d3",
    "--mantine-color-disabled-color": "#8d7f70",
    "--mantine-color-disabled-border": "#dcd0be",
  },
  dark: {},
});
