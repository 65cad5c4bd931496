/** The drawings of the icons. */
import { readFileSync } from "node:fs"
import { execFileSync } from "node:child_process"
import { join } from "node:path"
import * as icons from "../src/ui/icons"

const root = join(__dirname, "../../..")

test("every icon is drawn, and the drawings are those that the script makes", () => {
  for (const [name, icon] of Object.entries(icons))
    expect([name, icon.every((path) => /^M/i.test(path))]).toEqual([name, true])
  const made = execFileSync(
    process.execPath,
    [
      "--input-type=module",
      "-e",
      'import("./scripts/icons.mjs").then(async ({ written }) => process.stdout.write(await written()))',
    ],
    { cwd: root, encoding: "utf8" },
  )
  expect(made).toBe(readFileSync(join(root, "apps/web/src/ui/drawings.json"), "utf8"))
})
