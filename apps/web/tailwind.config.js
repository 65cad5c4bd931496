/** Colours are variables, so that light and dark are one set of class names: see global.css. */
const colour = (name) => `rgb(var(--${name}) / <alpha-value>)`

/** @type {import('tailwindcss').Config} */
module.exports = {
  darkMode: "class",
  content: ["./app/**/*.{ts,tsx}", "./src/**/*.{ts,tsx}"],
  presets: [require("nativewind/preset")],
  theme: {
    extend: {
      screens: { wide: "1000px" },
      colors: {
        desk: colour("desk"),
        surface: colour("surface"),
        raised: colour("raised"),
        ink: colour("ink"),
        "ink-soft": colour("ink-soft"),
        line: colour("line"),
        murex: colour("murex"),
        "murex-soft": colour("murex-soft"),
        "on-murex": colour("on-murex"),
        laurel: colour("laurel"),
        ochre: colour("ochre"),
        madder: colour("madder"),
      },
      borderRadius: { tray: "10px", button: "6px" },
      fontFamily: {
        ui: ["AtkinsonHyperlegibleNext-regular", "sans-serif"],
        "ui-bold": ["AtkinsonHyperlegibleNext-bold", "sans-serif"],
        display: ["Literata-regular", "serif"],
      },
    },
  },
}
