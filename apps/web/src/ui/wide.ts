/** Width of the window, in CSS pixels, from which screens are laid out for a mouse. tailwind.config.js says the same. */
export const wideFrom = 1000
