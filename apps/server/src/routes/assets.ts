import { raw, Router, type ErrorRequestHandler } from "express"
import { FontFileError, largestFontFile, readFontFile } from "@biblon/core/document/fontFile"
import { largestEnclosure } from "@biblon/core/document"
import type { AddedFile, AddedFont, AddedPicture } from "@biblon/wire"
import { checkPicture, largestPicture, PictureError } from "@biblon/core/formats/pictures/file"
import type { AssetStore } from "../store/assets"

const year = 31536000

/** Media type of files of which nothing is known. */
const anyFile = "application/octet-stream"

export function assetRoutes(assets: AssetStore): Router {
  const router = Router()

  /** Takes a font file; says what is in it, or why it is not taken. */
  const tooLarge: ErrorRequestHandler = (error: Error & { type?: string }, _request, response, next) => {
    if (error.type === "entity.too.large")
      response.status(413).json({
        message: `The file is too large; fonts of up to ${largestFontFile / 1048576} MB and pictures of up to ${largestPicture / 1048576} MB are taken.`,
      })
    else next(error)
  }
  router.post("/fonts", raw({ type: () => true, limit: largestFontFile + 1 }), (request, response) => {
    try {
      const bytes = new Uint8Array(request.body as Buffer)
      const { family, variant, postscript } = readFontFile(bytes)
      const added: AddedFont = { asset: assets.put(bytes, postscript ? "font/otf" : "font/ttf"), family, variant }
      response.status(201).json(added)
    } catch (error) {
      if (!(error instanceof FontFileError)) throw error
      response.status(422).json({ message: error.message })
    }
  })

  router.use("/fonts", tooLarge)

  /** Takes the file of a picture; what it is, is told by its content. */
  router.post("/pictures", raw({ type: () => true, limit: largestPicture + 1 }), (request, response) => {
    try {
      const bytes = new Uint8Array(request.body as Buffer)
      const { type, width, height } = checkPicture(bytes)
      const added: AddedPicture = { asset: assets.put(bytes, type), width, height }
      response.status(201).json(added)
    } catch (error) {
      if (!(error instanceof PictureError)) throw error
      response.status(422).json({ message: error.message })
    }
  })
  router.use("/pictures", tooLarge)

  /** Takes any file, to be enclosed in a document. It is never shown as a page: whoever asks for it gets it as a file. */
  router.post("/enclosures", raw({ type: () => true, limit: largestEnclosure + 1 }), (request, response) => {
    const bytes = Buffer.isBuffer(request.body) ? new Uint8Array(request.body) : new Uint8Array()
    if (bytes.length === 0) {
      response.status(422).json({ message: "There is nothing in this file." })
      return
    }
    response.status(201).json({ asset: assets.put(bytes, anyFile) } satisfies AddedFile)
  })
  const tooLargeToEnclose: ErrorRequestHandler = (error: Error & { type?: string }, _request, response, next) => {
    if (error.type === "entity.too.large")
      response.status(413).json({ message: `Files of up to ${largestEnclosure / 1048576} MB are enclosed.` })
    else next(error)
  }
  router.use("/enclosures", tooLargeToEnclose)

  router.get("/assets/:sha256", (request, response) => {
    const asset = assets.get(String(request.params.sha256))
    if (!asset) {
      response.status(404).json({ message: "That file is not kept here." })
      return
    }
    if (asset.type === anyFile) response.attachment()
    response.set("Cache-Control", `private, max-age=${year}, immutable`).type(asset.type).send(Buffer.from(asset.bytes))
  })

  return router
}
