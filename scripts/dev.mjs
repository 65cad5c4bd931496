/** Sets up and starts everything so that a change of the sources is seen at once: the server starts anew, the page and its workers are made anew. */
import { spawn } from "node:child_process"
import { createServer, request } from "node:http"
import { connect } from "node:net"
import { installPackages, root } from "./setup.mjs"

installPackages()
const { copyModules, earlyBuild, prepareWeb, workerBuild } = await import("./build.mjs")
const { context } = await import("esbuild")

const ports = { page: Number(process.env.BIBLON_PORT ?? 4780), server: 4781, bundler: 4782 }
await prepareWeb()
copyModules()
for (const ways of [workerBuild(), earlyBuild()]) await (await context(ways)).watch()

const children = [
  spawn(
    process.execPath,
    ["node_modules/tsx/dist/cli.mjs", "watch", "--clear-screen=false", "apps/server/src/main.ts"],
    {
      cwd: root,
      stdio: ["ignore", "ignore", "inherit"],
      env: { ...process.env, BIBLON_ROOT: root, BIBLON_DEMO: "1", BIBLON_PORT: String(ports.server) },
    },
  ),
  spawn("npx", ["expo", "start", "--web", "--port", String(ports.bundler)], {
    cwd: `${root}/apps/web`,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, EXPO_NO_TELEMETRY: "1", BROWSER: "none" },
  }),
]

const portFor = (path) => (/^\/(api|live)(\/|$)/.test(path) ? ports.server : ports.bundler)

const front = createServer((incoming, outgoing) => {
  const { url, method, headers } = incoming
  const onward = request({ port: portFor(url), path: url, method, headers }, (answer) => {
    outgoing.writeHead(answer.statusCode, answer.headers)
    answer.pipe(outgoing)
  })
  onward.on("error", () => outgoing.writeHead(502).end("Not started yet: reload in a moment."))
  incoming.pipe(onward)
})
front.on("upgrade", ({ url, headers }, socket, head) => {
  const onward = connect(portFor(url), () => {
    const lines = Object.entries(headers).map(([name, value]) => `${name}: ${value}`)
    onward.write(`GET ${url} HTTP/1.1\r\n${lines.join("\r\n")}\r\n\r\n`)
    onward.write(head)
    onward.pipe(socket).pipe(onward)
  })
  for (const end of [onward, socket]) end.on("error", () => [onward, socket].forEach((one) => one.destroy()))
})
front.listen(ports.page, "127.0.0.1", () => console.log(`Biblon is at http://127.0.0.1:${ports.page}`))

function end() {
  for (const child of children) child.kill("SIGTERM")
  process.exit(0)
}
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, end)
