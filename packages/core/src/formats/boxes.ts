/** Things to do are items with these marks elsewhere. */
export const boxes = { open: "☐", done: "☑" }
