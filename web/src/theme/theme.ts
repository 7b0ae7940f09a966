/**
 * A drawing office by the sea: sand for the table, white for paper, ink for text, one rust accent for what
 * needs attention.
 */
import { createTheme } from "@mui/material/styles";

/** Words on one line, cut short where there is no room. */
export const ONE_LINE = { overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" } as const;

export const colours = {
  sand: "#e6dcc8",
  sandLight: "#f5f0e5",
  sandPale: "#fbf8f2",
  sandDeep: "#cbbd9f",
  sandShade: "#a8997a",
  paper: "#ffffff",
  ink: "#1f2b33",
  inkSoft: "#55606a",
  rust: "#9c3f24",
  rustPale: "#f3e2da",
  sea: "#2d5c66",
};

export const theme = createTheme({
  palette: {
    primary: { main: colours.rust },
    secondary: { main: colours.sea },
    text: { primary: colours.ink, secondary: colours.inkSoft },
    background: { default: colours.sandLight, paper: colours.sandPale },
    divider: colours.sandDeep,
  },
  typography: {
    fontFamily: '"Hanken Grotesk Variable", sans-serif',
    fontSize: 13,
    h1: { fontSize: 20, fontWeight: 650, letterSpacing: "-0.01em" },
    h2: { fontSize: 14, fontWeight: 650 },
    body1: { fontSize: 13.5 },
    body2: { fontSize: 13 },
    caption: { fontSize: 11.5, color: colours.inkSoft },
    button: { textTransform: "none", fontWeight: 600, fontSize: 13 },
  },
  shape: { borderRadius: 3 },
  components: {
    MuiCssBaseline: {
      styleOverrides: { "html, body, #root": { height: "100%" }, body: { overflow: "hidden" } },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: {
          fontFamily: "inherit",
          "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: 2 },
        },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, size: "small" },
      styleOverrides: {
        root: { minHeight: 30, paddingInline: 12, whiteSpace: "nowrap" },
        outlined: { borderColor: colours.sandShade, color: colours.ink, backgroundColor: colours.sandPale },
      },
    },
    MuiTextField: {
      // The fields are low, and so their labels stand on the border from the start.
      defaultProps: {
        size: "small",
        variant: "outlined",
        slotProps: { inputLabel: { shrink: true, required: false } },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { backgroundColor: colours.paper, fontSize: 13 },
        input: { paddingBlock: 5, paddingInline: 8, height: 20 },
        notchedOutline: { borderColor: colours.sandDeep },
      },
    },
    MuiDialog: {
      styleOverrides: {
        paper: { backgroundColor: colours.sandPale, border: `1px solid ${colours.sandShade}` },
      },
    },
    MuiTooltip: {
      // A tip describes its control; the name of the control is what stands on it.
      defaultProps: { enterDelay: 400, disableInteractive: true, describeChild: true },
      styleOverrides: { tooltip: { backgroundColor: colours.ink, fontSize: 12 } },
    },
  },
});
