/**
 * Property tests draw the same values in every run of `npm test`: a run that fails was broken by a change and not by luck.
 * `npm run search` draws others, for as long as one likes.
 */
const { configureGlobal } = require("fast-check")

configureGlobal({ seed: Number(process.env.BIBLON_SEED ?? 20_261_127) })
