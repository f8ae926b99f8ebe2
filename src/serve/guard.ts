import { timingSafeEqual } from "node:crypto";
import type { FastifyReply, FastifyRequest } from "fastify";

/** The header that a page sends its key in. Other sites cannot set it without being asked first. */
export const KEY_HEADER = "x-uvran-key";

/** What every answer tells the browser: only this page's own files, no inline script, no frames, no guessing. */
const HEADERS: Readonly<Record<string, string>> = {
  "content-security-policy": [
    "default-src 'none'",
    "script-src 'self'",
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "connect-src 'self'",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join("; "),
  "x-content-type-options": "nosniff",
  "referrer-policy": "no-referrer",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  "cache-control": "no-store",
};

/**
 * Lets a request through or answers it: it must be for this very host, which a name that only points here is not; it must
 * not come from another site; and whatever reads or writes must have the key.
 */
export async function guard(
  request: FastifyRequest,
  reply: FastifyReply,
  { port, key }: { readonly port: number; readonly key: string },
): Promise<unknown> {
  reply.headers(HEADERS);
  const hosts = [`127.0.0.1:${port}`, `localhost:${port}`];
  const { host, origin } = request.headers;
  if (host === undefined || !hosts.includes(host))
    return reply.code(421).send({ error: "This server answers only to its own address." });
  if (origin !== undefined && !hosts.some((own) => origin === `http://${own}`))
    return reply.code(403).send({ error: "This server answers only to its own page." });
  if (!request.url.startsWith("/api/")) return undefined;
  const given = request.headers[KEY_HEADER];
  if (typeof given !== "string" || !isSame(given, key))
    return reply.code(401).send({
      error: "The key of the address is missing or wrong. Open the address that `uvran review` has printed.",
    });
  return undefined;
}

function isSame(given: string, key: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(key)];
  return a.length === b.length && timingSafeEqual(a, b);
}
