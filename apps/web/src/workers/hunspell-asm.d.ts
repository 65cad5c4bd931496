/** What hunspell-asm is built of: see hunspell.ts. */
declare module "hunspell-asm/dist/cjs/lib/node/hunspell.js" {
  const start: (settings: object) => unknown
  export default start
}
