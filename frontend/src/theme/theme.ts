// The one place for colours, type and density. Components use these roles through CSS variables, never literals.
import { createTheme } from "@mui/material/styles";

/** What a note is about; a colour is never the only sign (see NOTE_KINDS in text/words). */
export interface NoteColours {
  rule: string;
  calculation: string;
  check: string;
  money: string;
  data: string;
}

declare module "@mui/material/styles" {
  interface Palette {
    sheet: typeof SHEET;
    note: NoteColours;
    noteTint: NoteColours;
    bar: { main: string; text: string; quiet: string; raised: string; alarm: string };
  }
  interface PaletteOptions {
    sheet: typeof SHEET;
    note: NoteColours;
    noteTint: NoteColours;
    bar: { main: string; text: string; quiet: string; raised: string; alarm: string };
  }
}

const SANS = '"Source Sans 3 Variable", system-ui, sans-serif';
export const SERIF = '"Source Serif 4 Variable", Georgia, serif';
export const MONO = '"JetBrains Mono Variable", ui-monospace, monospace';

/** The sheet shows what visitors will see, who get no dark scheme: it is light in both. */
const SHEET = { paper: "#FFFFFF", ink: "#16202B", quiet: "#55636F", hover: "#F3F5F6", action: "#0F6B6B" };

const isStill = (): boolean =>
  typeof matchMedia === "function" && matchMedia("(prefers-reduced-motion: reduce)").matches;

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: "media" },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: "#0F6B6B", dark: "#0A5252", contrastText: "#FFFFFF" },
        error: { main: "#B83218" },
        warning: { main: "#8A5D00" },
        text: { primary: "#16202B", secondary: "#55636F" },
        divider: "#D9DFE4",
        background: { default: "#F3F5F6", paper: "#FFFFFF" },
        note: { rule: "#3D4FB0", calculation: "#0F6B6B", check: "#B83218", money: "#8A5D00", data: "#7A3E8E" },
        noteTint: { rule: "#ECEEF8", calculation: "#E3F0EF", check: "#FBECE8", money: "#F8F0DF", data: "#F3EAF5" },
        sheet: SHEET,
        bar: { main: "#16202B", text: "#FFFFFF", quiet: "#B6C2CC", raised: "#2A3B4D", alarm: "#FFC2B3" },
      },
    },
    dark: {
      palette: {
        primary: { main: "#5FBDB8", dark: "#8AD3CF", contrastText: "#0B1517" },
        error: { main: "#FF9B85" },
        warning: { main: "#E5B75C" },
        text: { primary: "#E8EDF1", secondary: "#A9B6C1" },
        divider: "#334250",
        background: { default: "#10181F", paper: "#18222C" },
        note: { rule: "#A9B4F5", calculation: "#5FBDB8", check: "#FF9B85", money: "#E5B75C", data: "#D2A3E2" },
        noteTint: { rule: "#232A49", calculation: "#163636", check: "#43231C", money: "#3B2F14", data: "#36233E" },
        sheet: SHEET,
        bar: { main: "#0A1117", text: "#FFFFFF", quiet: "#A9B6C1", raised: "#22303D", alarm: "#FFC2B3" },
      },
    },
  },
  spacing: 8,
  shape: { borderRadius: 6 },
  typography: {
    fontFamily: SANS,
    fontSize: 14,
    body1: { fontSize: 14, lineHeight: "20px" },
    body2: { fontSize: 13, lineHeight: "18px" },
    caption: { fontSize: 12, lineHeight: "16px" },
    h1: { fontFamily: SERIF, fontSize: 24, lineHeight: "32px", fontWeight: 600 },
    h2: { fontSize: 16, lineHeight: "22px", fontWeight: 650 },
    h3: { fontSize: 13, lineHeight: "18px", fontWeight: 650 },
    button: { textTransform: "none", fontWeight: 600, fontSize: 13, lineHeight: "18px" },
  },
  components: {
    // Who asks for no motion waits for none: what opens is there at once.
    ...(isStill() && {
      MuiPopover: { defaultProps: { transitionDuration: 0 } },
      MuiMenu: { defaultProps: { transitionDuration: 0 } },
      MuiDialog: { defaultProps: { transitionDuration: 0 } },
      MuiSnackbar: { defaultProps: { transitionDuration: 0 } },
    }),
    MuiButton: {
      defaultProps: { disableElevation: true, size: "small" },
      styleOverrides: { root: { padding: "6px 12px" } },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiIconButton: { defaultProps: { size: "small" } },
    MuiTextField: { defaultProps: { size: "small", fullWidth: true } },
    MuiSelect: { defaultProps: { size: "small" } },
    MuiSwitch: { defaultProps: { size: "small" } },
    MuiMenuItem: { defaultProps: { dense: true } },
    MuiInputBase: {
      styleOverrides: { root: { fontSize: 14 }, input: { "textarea&": { fieldSizing: "content", width: "100%" } } },
    },
    MuiToggleButton: {
      styleOverrides: { root: { color: "var(--mui-palette-text-secondary)", textTransform: "none" } },
    },
    MuiTab: { styleOverrides: { root: { minHeight: 38, minWidth: 0, padding: "8px 11px", fontSize: 14 } } },
    MuiTabs: { styleOverrides: { root: { minHeight: 38 } } },
    MuiTooltip: { defaultProps: { enterDelay: 500 } },
    MuiCssBaseline: {
      styleOverrides: {
        ":focus-visible": { outline: "2px solid var(--mui-palette-primary-main)", outlineOffset: 1 },
        // Formulas, keys and addresses are read sign by sign, wherever they stand.
        body: { fontSize: 14, lineHeight: "20px", fontVariantLigatures: "no-contextual" },
        "@media (prefers-reduced-motion: reduce)": {
          "*, *::before, *::after": { transitionDuration: "0s !important", transitionDelay: "0s !important" },
        },
      },
    },
  },
});
