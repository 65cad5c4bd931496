/// <reference path="../../../../packages/core/src/sources/modules.d.ts" />
/** The program that makes citations: fetched when a document cites. */
export { default } from "citeproc"
