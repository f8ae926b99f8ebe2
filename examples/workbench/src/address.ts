import { isBenchState, type BenchState } from "./state";

/** Longer addresses are cut by what people send them with. */
const LONGEST = 30_000;

/** A state as the part of an address behind `#`; undefined where it is too long for one. */
export async function toAddress(state: BenchState): Promise<string | undefined> {
  const bytes = new TextEncoder().encode(JSON.stringify(state));
  const packed = await through(bytes, new CompressionStream("deflate-raw"));
  const text = btoa(packed.reduce((all, byte) => all + String.fromCharCode(byte), ""))
    .replace(/\+/g, "-")
    .replace(/\//g, "_")
    .replace(/=+$/, "");
  return text.length > LONGEST ? undefined : text;
}

/** The state that an address holds; undefined for one that holds none. */
export async function fromAddress(hash: string): Promise<BenchState | undefined> {
  const text = hash.replace(/^#/, "");
  if (text === "") return undefined;
  try {
    const packed = Uint8Array.from(atob(text.replace(/-/g, "+").replace(/_/g, "/")), (c) => c.charCodeAt(0));
    const bytes = await through(packed, new DecompressionStream("deflate-raw"));
    const value: unknown = JSON.parse(new TextDecoder().decode(bytes));
    return isBenchState(value) ? value : undefined;
  } catch {
    return undefined;
  }
}

async function through(bytes: Uint8Array<ArrayBuffer>, stream: GenericTransformStream): Promise<Uint8Array> {
  const packed = new Blob([bytes])
    .stream()
    .pipeThrough(stream as ReadableWritablePair<Uint8Array, BufferSource>);
  return new Uint8Array(await new Response(packed).arrayBuffer());
}
