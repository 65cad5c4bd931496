import { raw, Router, type ErrorRequestHandler } from "express"
import { FontFileError, largestFontFile, readFontFile } from "@biblon/core/layout"
import type { AddedFont, AddedPicture } from "@biblon/wire"
import { checkPicture, largestPicture, PictureError } from "@biblon/core/formats/pictureFile"
import type { AssetStore } from "../store/assets"

const year = 31536000

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

  router.get("/assets/:sha256", (request, response) => {
    const asset = assets.get(String(request.params.sha256))
    if (!asset) {
      response.status(404).json({ message: "That file is not kept here." })
      return
    }
    response.set("Cache-Control", `private, max-age=${year}, immutable`).type(asset.type).send(Buffer.from(asset.bytes))
  })

  return router
}
