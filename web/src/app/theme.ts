import { createTheme, responsiveFontSizes, type ThemeOptions } from "@mui/material/styles";

/** The colors of the look, by role. */
export interface Tones {
  paper: string;
  card: string;
  ink: string;
  soft: string;
  rule: string;
  rail: string;
  pine: string;
  bar: string;
  blaze: string;
  onBlaze: string;
  moss: string;
  onMoss: string;
  ochre: string;
  onOchre: string;
  slate: string;
  onSlate: string;
  danger: string;
  lit: string;
  onLit: string;
  dark: string;
  onDark: string;
}

declare module "@mui/material/styles" {
  interface Palette {
    tone: Tones;
  }
  interface PaletteOptions {
    tone: Tones;
  }
}

const day: Tones = {
  paper: "#f6f3ea",
  card: "#fffdf7",
  ink: "#1d2a2e",
  soft: "#4f5c5e",
  rule: "#d8d2c2",
  rail: "#ece6d8",
  pine: "#20594b",
  bar: "#20594b",
  blaze: "#c24a18",
  onBlaze: "#ffffff",
  moss: "#4b7330",
  onMoss: "#ffffff",
  ochre: "#c08a1e",
  onOchre: "#1d2a2e",
  slate: "#5c676a",
  onSlate: "#ffffff",
  danger: "#a3151c",
  lit: "#e9a820",
  onLit: "#1d2a2e",
  dark: "#1d2a2e",
  onDark: "#ffffff",
};

const cellar: Tones = {
  paper: "#10191a",
  card: "#182425",
  ink: "#eef0e6",
  soft: "#b0bbb8",
  rule: "#3a4a48",
  rail: "#141f20",
  pine: "#5fae97",
  bar: "#17463b",
  blaze: "#f08a55",
  onBlaze: "#141b1c",
  moss: "#8fc266",
  onMoss: "#141b1c",
  ochre: "#e0ad4a",
  onOchre: "#141b1c",
  slate: "#98a4a6",
  onSlate: "#141b1c",
  danger: "#ff9a94",
  lit: "#e9a820",
  onLit: "#141b1c",
  dark: "#000000",
  onDark: "#ffffff",
};

const palette = (tone: Tones) => ({
  tone,
  primary: { main: tone.blaze, contrastText: tone.onBlaze },
  secondary: { main: tone.pine },
  error: { main: tone.danger },
  success: { main: tone.moss },
  warning: { main: tone.ochre },
  background: { default: tone.paper, paper: tone.card },
  text: { primary: tone.ink, secondary: tone.soft },
  divider: tone.rule,
});

const head = '"Overpass Variable", sans-serif';
const text = '"Atkinson Hyperlegible Next Variable", sans-serif';

const options: ThemeOptions = {
  cssVariables: { colorSchemeSelector: "data-scheme" },
  colorSchemes: { light: { palette: palette(day) }, dark: { palette: palette(cellar) } },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: text,
    fontSize: 15,
    h1: { fontFamily: head, fontWeight: 700, fontSize: "1.65rem" },
    h2: { fontFamily: head, fontWeight: 700, fontSize: "1.2rem" },
    h3: { fontFamily: head, fontWeight: 700, fontSize: "1rem" },
    button: { fontFamily: head, fontWeight: 700, textTransform: "none" },
    body2: { fontSize: "0.9rem" },
  },
  components: {
    // The accent is too pale for a label that stands on the page itself.
    MuiFormLabel: { styleOverrides: { root: { "&.Mui-focused": { color: "var(--mui-palette-text-primary)" } } } },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: { minHeight: 44, paddingTop: 8 },
        outlined: { borderWidth: 2, color: "inherit", borderColor: "currentColor" },
      },
    },
    MuiIconButton: { styleOverrides: { root: { minWidth: 44, minHeight: 44 } } },
    MuiMenuItem: { styleOverrides: { root: { minHeight: 44 } } },
    MuiCheckbox: { styleOverrides: { root: { padding: 10 } } },
    MuiRadio: { styleOverrides: { root: { padding: 10 } } },
    MuiInputBase: { styleOverrides: { root: { minHeight: 44 } } },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: "none" } } },
    MuiDialog: {
      styleOverrides: { paper: { border: "2px solid var(--mui-palette-divider)" } },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: { color: "inherit", textTransform: "none", minHeight: 44, minWidth: 44, fontWeight: 700 },
      },
    },
    MuiCssBaseline: {
      styleOverrides: {
        ":focus-visible": { outline: "3px solid var(--mui-palette-tone-blaze)", outlineOffset: 2 },
        html: { scrollPaddingTop: 72, scrollPaddingBottom: 72 },
        body: { fontVariantNumeric: "tabular-nums" },
        "main a:not([class])": { color: "var(--mui-palette-tone-pine)" },
        ".print-only": { display: "none !important" },
        "@media print": {
          ".print-only": { display: "block !important" },
          "header, nav, .no-print, [data-testid=connection]": { display: "none !important" },
          main: { padding: "0 !important" },
          ".panel-page": { display: "block !important" },
          "[data-testid=fingerpost]": { maxHeight: "232mm", width: "100%" },
        },
        "@media (prefers-reduced-motion: reduce)": {
          "*, *::before, *::after": { transitionDuration: "0s !important", animationDuration: "0s !important" },
        },
      },
    },
  },
};

export const theme = responsiveFontSizes(createTheme(options), { factor: 3 });

/** A tone for SVG and `sx`: follows the scheme. */
export const tone = (name: keyof Tones): string => `var(--mui-palette-tone-${name})`;
