declare module "@citation-js/core" {
  export const plugins: {
    input: { chain(input: unknown, options: { forceType: string; generateGraph: boolean }): unknown }
  }
}
declare module "@citation-js/plugin-bibtex"
declare module "citeproc" {
  const program: unknown
  export default program
}
