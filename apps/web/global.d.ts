/// <reference types="nativewind/types" />
/** Where a style sheet is asked for as text, as by early.js. */
declare module "*.css" {
  const text: string
  export default text
}
