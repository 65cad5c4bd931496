/** Who is answered, and what pages of ours may do. */
import { createHash } from "node:crypto"
import type { IncomingMessage } from "node:http"
import type { RequestHandler, Response } from "express"
import { rateLimit } from "express-rate-limit"
import helmet from "helmet"

/** Names under which this server is reached, without ports. */
export type Hosts = ReadonlySet<string>

/** Loopback by its names, and those that a setting adds (divided by commas). */
export function hostsFrom(setting = ""): Hosts {
  return new Set([
    "localhost",
    "127.0.0.1",
    "[::1]",
    ...setting
      .split(",")
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== ""),
  ])
}

const nameOf = (host: string) => host.toLowerCase().replace(/:\d+$/, "")

/**
 * Whether a request is for this server and not sent by a page of another site in the name of the person at the browser. A name
 * that is not ours is refused even where it leads here (DNS rebinding).
 */
export function isWelcome({ headers: { host, origin } }: IncomingMessage, hosts: Hosts): boolean {
  if (host === undefined || !hosts.has(nameOf(host))) return false
  return (
    origin === undefined ||
    origin.toLowerCase() === `http://${host.toLowerCase()}` ||
    origin.toLowerCase() === `https://${host.toLowerCase()}`
  )
}

/** Everything comes from here; no script in a page's text but the one that we put there (`allowScripts`), nothing evaluated but WebAssembly, no page of ours in others' frames. */
const policy = {
  "default-src": ["'none'"],
  "script-src": ["'self'", "'wasm-unsafe-eval'"],
  "worker-src": ["'self'"],
  "style-src": ["'self'", "'unsafe-inline'"],
  "img-src": ["'self'", "blob:", "data:"],
  "font-src": ["'self'"],
  "connect-src": ["'self'", "blob:"],
  "manifest-src": ["'self'"],
  // The finished PDF on its way to the printer.
  "frame-src": ["blob:"],
  "base-uri": ["'none'"],
  "form-action": ["'none'"],
  "frame-ancestors": ["'none'"],
}

/** Lets a page of ours run the scripts that stand in its text, and no others there. */
export function allowScripts(response: Response, html: string): void {
  const strict = String(response.getHeader("Content-Security-Policy"))
  const hashes = [...html.matchAll(/<script>(.*?)<\/script>/gs)].map(
    ([, script = ""]) => ` 'sha256-${createHash("sha256").update(script).digest("base64")}'`,
  )
  response.setHeader("Content-Security-Policy", strict.replace("script-src 'self'", `$&${hashes.join("")}`))
}

/** Requests that one address may make within ten seconds: many more than any page does. */
const most = 6000

export function guard(hosts: Hosts): RequestHandler[] {
  return [
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: policy },
      referrerPolicy: { policy: "no-referrer" },
      frameguard: { action: "deny" },
      // Plain HTTP on loopback has no transport to be strict about.
      strictTransportSecurity: false,
    }),
    (request, response, next) => {
      if (isWelcome(request, hosts)) next()
      else
        response.status(403).json({
          message:
            "Requests from other sites, or to a name that is not this server's, are not answered. BIBLON_HOSTS says which names are.",
        })
    },
    rateLimit({
      windowMs: 10_000,
      limit: most,
      standardHeaders: false,
      legacyHeaders: false,
      validate: false,
      message: { message: "Too many requests. Wait a moment and try again." },
    }),
  ]
}
