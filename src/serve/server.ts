import { randomBytes } from "node:crypto";
import { existsSync } from "node:fs";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import serveFiles from "@fastify/static";
import Fastify, { type FastifyInstance } from "fastify";
import { z } from "zod";
import { installed, messageOf, Problem } from "../node/index.js";
import { CHANGE_DECISIONS, PLACE_DECISIONS, PlanError, type Plan } from "../plan/index.js";
import { DecidedMeanwhile, type Review, type Workspace } from "../workspace/index.js";
import { guard } from "./guard.js";
import { Pages } from "./pages.js";
import { Served } from "./served.js";

/** The built page. */
const PAGE = installed("dist/review-desk/");
const MOST_BYTES = 4_000_000;
/** How long a request may take to arrive. */
const SLOWEST_MILLISECONDS = 15_000;

export interface Serving {
  readonly plan: Plan;
  /** 0 for any that is free. */
  readonly port: number;
  /** What the page shows first, as it stands behind `#` in the address. */
  readonly view: string;
}

export interface ReviewServer {
  /** With the key in it. */
  readonly address: string;
  /** What is served now, which may be a newer plan than the first. */
  review(): Review;
  /** Resolves when the last page is gone, or the server was closed. */
  readonly ended: Promise<void>;
  close(): Promise<void>;
}

const said = z.strictObject({
  id: z.string().max(16),
  decision: z.enum([...CHANGE_DECISIONS, ...PLACE_DECISIONS]).optional(),
  note: z.string().max(10_000).optional(),
  edited: z.string().max(200_000).optional(),
  saw: z.enum([...CHANGE_DECISIONS, ...PLACE_DECISIONS, "none"]).optional(),
});
const decideBody = z.strictObject({ said: z.array(said).max(100_000), page: z.string().max(40) });

/** Starts the server of a review on loopback. Throws a Problem where the port is taken or the page was not built. */
export async function serveReview(
  workspace: Workspace,
  { plan, port, view }: Serving,
): Promise<ReviewServer> {
  if (!existsSync(join(PAGE, "index.html")))
    throw new Problem("The page of the review is not built. Build it with: npm run build");
  const key = randomBytes(24).toString("base64url");
  const app = Fastify({
    bodyLimit: MOST_BYTES,
    requestTimeout: SLOWEST_MILLISECONDS,
    forceCloseConnections: true,
  });
  let end = (): void => {};
  const ended = new Promise<void>((resolve) => (end = resolve));
  const pages = new Pages(() => void close());
  const desk = new Served(workspace, workspace.review(plan), pages);
  let isClosed = false;
  const close = async (): Promise<void> => {
    if (isClosed) return ended;
    isClosed = true;
    desk.close();
    pages.close();
    await app.close();
    end();
  };
  app.addHook("onRequest", (request, reply) => guard(request, reply, { port: portOf(app), key }));
  app.setErrorHandler((error, _, reply) => {
    const { status, says } = answerTo(error);
    return reply.code(status).send({ error: says });
  });
  app.setNotFoundHandler((_, reply) => reply.code(404).send({ error: "There is nothing at this address." }));
  app.get("/api/desk", () => desk.whole());
  app.get<{ Params: { id: string } }>("/api/edits/:id", async ({ params: { id } }) => {
    const change = desk.review.plan.changes.find((one) => one.id === id);
    if (!change) throw new Problem(`The plan has no change with the id ${id}.`);
    return { edits: await desk.review.edits(change) };
  });
  app.get("/api/decisions", () => ({ decisions: desk.review.decisions() }));
  app.post("/api/decide", async ({ body }) => {
    const parsed = decideBody.safeParse(body);
    if (!parsed.success) throw new Problem(`The request is not in order: ${parsed.error.issues[0]?.message}`);
    return { decisions: await desk.decide(parsed.data.said, parsed.data.page) };
  });
  app.post("/api/propose", () => desk.propose());
  app.get("/api/news", (_, reply) => {
    reply.hijack();
    reply.raw.writeHead(200, { "content-type": "application/x-ndjson", "cache-control": "no-store" });
    reply.raw.write("\n");
    pages.add(reply.raw);
  });
  await app.register(serveFiles, { root: PAGE, cacheControl: false });
  try {
    await app.listen({ host: "127.0.0.1", port });
  } catch (error) {
    desk.close();
    pages.close();
    if ((error as NodeJS.ErrnoException).code === "EADDRINUSE")
      throw new Problem(
        `Port ${port} is taken. Choose another with --port, or leave it out for one that is free.`,
        1,
      );
    throw new Problem(`The server cannot be started on port ${port}: ${messageOf(error)}`, 1);
  }
  const tail = view === "" ? "" : `&${view}`;
  return {
    address: `http://127.0.0.1:${portOf(app)}/#key=${key}${tail}`,
    ended,
    close,
    review: () => desk.review,
  };
}

function portOf(app: FastifyInstance): number {
  return (app.server.address() as AddressInfo | null)?.port ?? 0;
}

function answerTo(error: unknown): { status: number; says: string } {
  if (error instanceof DecidedMeanwhile) return { status: 409, says: error.message };
  if (error instanceof Problem || error instanceof PlanError) return { status: 422, says: error.message };
  const { statusCode } = error as { statusCode?: number };
  if (statusCode !== undefined && statusCode < 500) return { status: statusCode, says: messageOf(error) };
  return { status: 500, says: `Uvran failed; this is a fault in it: ${messageOf(error)}` };
}
