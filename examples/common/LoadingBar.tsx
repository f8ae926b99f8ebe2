import type { Loading } from "./grammars.js";

/** How far the grammar is loaded that is on its way, or that the page is still starting. */
export function LoadingBar({
  loading,
  isStarting,
}: {
  readonly loading: Loading;
  readonly isStarting: boolean;
}) {
  if (!loading && !isStarting) return null;
  const name = loading?.file.replace(/^tree-sitter-|\.wasm$/g, "");
  return (
    <p className="loading" role="status">
      {loading ? `Loading the grammar ${name} ` : "Starting "}
      <progress max={loading?.total} value={loading?.total === undefined ? undefined : loading.received} />
    </p>
  );
}
