/** A picture made for tests: a dark disc on a light ground, as PNG. */
import { writePng } from "../apps/server/src/demo/png"

export function discPng(width: number, height: number): Buffer {
  return Buffer.from(
    writePng(width, height, (x, y) =>
      Math.hypot((x - width / 2) / (width / 2), (y - height / 2) / (height / 2)) < 0.7
        ? [122, 31, 75]
        : [233, 227, 214],
    ),
  )
}
