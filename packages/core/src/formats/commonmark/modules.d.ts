declare module "markdown-it-footnote" {
  import type MarkdownIt from "markdown-it"
  const footnotes: (parser: MarkdownIt) => void
  export default footnotes
}
