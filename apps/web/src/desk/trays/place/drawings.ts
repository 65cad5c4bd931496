/** Drawings of our own, for letters, notices and reports; each in a box of 48 by 48. */
export interface Drawing {
  name: string
  /** Other words to find it by. */
  words: string
  /** What stands in its SVG element. */
  svg: string
}

// prettier-ignore
export const drawings: readonly Drawing[] = [
  { name: "Chain ferry", words: "boat ship water crossing", svg: `<path d="M4 30h40l-4 8H8z" fill="#7a1f4b"/><path d="M12 20h18v10H12z" fill="#e9e3d6" stroke="#1e1a16" stroke-width="1.5"/><path d="M32 12v18M32 12l8 4-8 4" fill="#9a6412" stroke="#1e1a16" stroke-width="1.5"/><path d="M2 42q4-3 8 0t8 0 8 0 8 0 8 0 6 0" fill="none" stroke="#1f4f7a" stroke-width="2"/>` },
  { name: "Anchor", words: "harbour ship", svg: `<g fill="none" stroke="#1f4f7a" stroke-width="3" stroke-linecap="round"><circle cx="24" cy="9" r="4"/><path d="M24 13v29M14 20h20M8 30c2 8 8 12 16 12s14-4 16-12"/></g>` },
  { name: "Buoy", words: "sea mark warning water", svg: `<path d="M18 30l3-20h6l3 20z" fill="#a8281e"/><path d="M14 30h20l-3 8H17z" fill="#1e1a16"/><circle cx="24" cy="8" r="3" fill="#e0b25e"/><path d="M2 42q4-3 8 0t8 0 8 0 8 0 8 0 6 0" fill="none" stroke="#1f4f7a" stroke-width="2"/>` },
  { name: "Lighthouse", words: "light coast tower", svg: `<path d="M19 42l2-26h6l2 26z" fill="#fff" stroke="#1e1a16" stroke-width="1.5"/><path d="M20 32h8l-.6-7h-6.8z" fill="#a8281e"/><path d="M20 10h8v6h-8z" fill="#e0b25e" stroke="#1e1a16" stroke-width="1.5"/><path d="M18 10l6-5 6 5z" fill="#1e1a16"/><path d="M31 11l12-4v10l-12-3zM17 11L5 7v10l12-3z" fill="#e0b25e" opacity=".5"/>` },
  { name: "Waves", words: "sea water tide", svg: `<g fill="none" stroke="#1f4f7a" stroke-width="3" stroke-linecap="round"><path d="M4 16q5-5 10 0t10 0 10 0 10 0"/><path d="M4 26q5-5 10 0t10 0 10 0 10 0" opacity=".7"/><path d="M4 36q5-5 10 0t10 0 10 0 10 0" opacity=".4"/></g>` },
  { name: "Fish", words: "sea food animal", svg: `<path d="M6 24c6-10 20-12 28-2l8-6v16l-8-6c-8 10-22 8-28-2z" fill="#3b6b4c"/><circle cx="14" cy="22" r="2" fill="#fff"/>` },
  { name: "Gull", words: "bird sea fly", svg: `<path d="M4 20c8-8 14-4 20 4 6-8 12-12 20-4-8-2-14 2-20 12-6-10-12-14-20-12z" fill="#5e564b"/>` },
  { name: "Compass", words: "direction north map", svg: `<circle cx="24" cy="24" r="19" fill="#fff" stroke="#1e1a16" stroke-width="2"/><path d="M24 8l5 16-5 3-5-3z" fill="#a8281e"/><path d="M24 40l5-16-5-3-5 3z" fill="#5e564b"/>` },
  { name: "Sun", words: "weather summer day", svg: `<circle cx="24" cy="24" r="9" fill="#e0b25e"/><g stroke="#9a6412" stroke-width="3" stroke-linecap="round"><path d="M24 5v5M24 38v5M5 24h5M38 24h5M10.5 10.5l3.5 3.5M34 34l3.5 3.5M37.5 10.5L34 14M14 34l-3.5 3.5"/></g>` },
  { name: "Moon", words: "night tide evening", svg: `<path d="M32 38A18 18 0 1 1 30 8a14 14 0 0 0 2 30z" fill="#1f4f7a"/>` },
  { name: "Cloud and rain", words: "weather wet", svg: `<path d="M14 28a8 8 0 0 1 1-16 11 11 0 0 1 20 3 7 7 0 0 1 0 13z" fill="#b5aa9b"/><path d="M16 33l-3 8M24 33l-3 8M32 33l-3 8" stroke="#1f4f7a" stroke-width="2.5" stroke-linecap="round"/>` },
  { name: "Wind", words: "weather storm air", svg: `<g fill="none" stroke="#5e564b" stroke-width="3" stroke-linecap="round"><path d="M4 18h24a5 5 0 1 0-5-5"/><path d="M4 26h34a5 5 0 1 1-5 5"/><path d="M4 34h16"/></g>` },
  { name: "Clock", words: "time hour timetable", svg: `<circle cx="24" cy="24" r="19" fill="#fff" stroke="#1e1a16" stroke-width="2.5"/><path d="M24 12v12l8 5" fill="none" stroke="#7a1f4b" stroke-width="3" stroke-linecap="round"/>` },
  { name: "Calendar", words: "date day month meeting", svg: `<rect x="6" y="10" width="36" height="32" rx="3" fill="#fff" stroke="#1e1a16" stroke-width="2"/><path d="M6 18h36v-5a3 3 0 0 0-3-3H9a3 3 0 0 0-3 3z" fill="#7a1f4b"/><path d="M15 6v8M33 6v8" stroke="#1e1a16" stroke-width="2.5"/><g fill="#b5aa9b"><path d="M12 23h5v5h-5zM21.500 23h5v5h-5zM31 23h5v5h-5zM12 32h5v5h-5z"/></g><path d="M21.500 32h5v5h-5z" fill="#a8281e"/>` },
  { name: "Letter", words: "envelope post mail", svg: `<rect x="4" y="11" width="40" height="27" rx="2" fill="#e9e3d6" stroke="#1e1a16" stroke-width="2"/><path d="M5 13l19 14 19-14" fill="none" stroke="#1e1a16" stroke-width="2"/>` },
  { name: "Speech", words: "talk comment meeting say", svg: `<path d="M6 8h36v24H22l-10 9v-9H6z" fill="#f4e4eb" stroke="#7a1f4b" stroke-width="2"/><path d="M13 16h22M13 23h14" stroke="#7a1f4b" stroke-width="2.5"/>` },
  { name: "People", words: "trustees members group meeting", svg: `<circle cx="17" cy="15" r="6" fill="#3b6b4c"/><path d="M6 39c0-10 5-15 11-15s11 5 11 15z" fill="#3b6b4c"/><circle cx="33" cy="18" r="5" fill="#8cc3a0"/><path d="M25 39c0-8 3-13 8-13s9 5 9 13z" fill="#8cc3a0"/>` },
  { name: "House", words: "home office building", svg: `<path d="M6 24L24 8l18 16h-5v16H11V24z" fill="#e9e3d6" stroke="#1e1a16" stroke-width="2"/><path d="M20 40V29h8v11z" fill="#7a1f4b"/>` },
  { name: "Tree", words: "nature garden land", svg: `<path d="M22 30h4v12h-4z" fill="#9a6412"/><circle cx="24" cy="18" r="13" fill="#3b6b4c"/><circle cx="17" cy="23" r="7" fill="#3b6b4c"/><circle cx="31" cy="23" r="7" fill="#3b6b4c"/>` },
  { name: "Reeds", words: "marsh grass water plant", svg: `<g stroke="#3b6b4c" stroke-width="2.500" fill="none" stroke-linecap="round"><path d="M14 43c0-14 1-22 3-30M24 43V12M34 43c0-12-1-20-4-26"/></g><g fill="#9a6412"><rect x="14.500" y="6" width="5" height="11" rx="2.500"/><rect x="21.500" y="4" width="5" height="12" rx="2.500"/><rect x="27.500" y="9" width="5" height="11" rx="2.500"/></g>` },
  { name: "Warning", words: "danger notice care attention", svg: `<path d="M24 6l20 35H4z" fill="#e0b25e" stroke="#1e1a16" stroke-width="2.500" stroke-linejoin="round"/><path d="M24 18v11" stroke="#1e1a16" stroke-width="4" stroke-linecap="round"/><circle cx="24" cy="35" r="2.500" fill="#1e1a16"/>` },
  { name: "Tick", words: "done yes right", svg: `<circle cx="24" cy="24" r="19" fill="#dcebe0"/><path d="M14 25l7 7 14-16" fill="none" stroke="#3b6b4c" stroke-width="5" stroke-linecap="round" stroke-linejoin="round"/>` },
  { name: "Star", words: "prize good mark", svg: `<path d="M24 5l6 12 13 2-9.500 9.500 2 13.500L24 36l-11.500 6 2-13.500L5 19l13-2z" fill="#e0b25e" stroke="#9a6412" stroke-width="1.500"/>` },
  { name: "Heart", words: "thanks love donor", svg: `<path d="M24 42C8 30 4 22 6 15c2-7 12-9 18 0 6-9 16-7 18 0 2 7-2 15-18 27z" fill="#a8281e"/>` },
  { name: "Arrow", words: "direction way to go", svg: `<path d="M4 19h24V9l16 15-16 15V29H4z" fill="#7a1f4b"/>` },
  { name: "Map pin", words: "place where address", svg: `<path d="M24 44S9 29 9 19a15 15 0 0 1 30 0c0 10-15 25-15 25z" fill="#a8281e"/><circle cx="24" cy="19" r="6" fill="#fff"/>` },
  { name: "Lifebelt", words: "help safety rescue", svg: `<circle cx="24" cy="24" r="14" fill="none" stroke="#fff" stroke-width="9"/><circle cx="24" cy="24" r="14" fill="none" stroke="#a8281e" stroke-width="9" stroke-dasharray="11 11"/><circle cx="24" cy="24" r="18.500" fill="none" stroke="#1e1a16" stroke-width="1"/><circle cx="24" cy="24" r="9.500" fill="none" stroke="#1e1a16" stroke-width="1"/>` },
  { name: "Rope", words: "line knot divider", svg: `<path d="M2 24c4-8 8-8 11 0s7 8 11 0 7-8 11 0 7 8 11 0" fill="none" stroke="#9a6412" stroke-width="5"/><path d="M2 24c4-8 8-8 11 0s7 8 11 0 7-8 11 0 7 8 11 0" fill="none" stroke="#f4e3b5" stroke-width="1.500" stroke-dasharray="3 3"/>` },
]

/** A drawing as a file of its own. */
export function drawingFile({ name, svg }: Drawing): File {
  const text = `<svg xmlns="http://www.w3.org/2000/svg" width="480" height="480" viewBox="0 0 48 48">${svg}</svg>`
  return new File([text], `${name}.svg`, { type: "image/svg+xml" })
}
