/** A page without a screen, for modules that make elements. To be imported before them. */
import { JSDOM } from "jsdom"

const { window } = new JSDOM("<!doctype html>")
Object.assign(globalThis, { document: window.document, devicePixelRatio: 1 })
