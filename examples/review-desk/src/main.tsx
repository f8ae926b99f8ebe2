import { StrictMode, useCallback, useEffect, useState, type DragEvent } from "react";
import { createRoot } from "react-dom/client";
import { Review } from "./Review.js";
import { FileSource, ServerSource, type Source } from "./source.js";
import { useDesk } from "./useDesk.js";
import "./style.css";

const DEMO = "demo.json";

/** Opens the review of the server that the address has the key of, or one from a file. */
function Page() {
  const [source, setSource] = useState<Source | undefined>(() => {
    const key = new URLSearchParams(location.hash.slice(1)).get("key");
    return key === null ? undefined : new ServerSource(key);
  });
  const [trouble, setTrouble] = useState<string>();
  const openText = useCallback((json: string) => {
    try {
      setSource(new FileSource(json));
      setTrouble(undefined);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  }, []);
  const openFile = useCallback((file: File | undefined) => void file?.text().then(openText), [openText]);
  const openDemo = useCallback(async () => {
    const answer = await fetch(DEMO).catch(() => undefined);
    if (answer?.ok) openText(await answer.text());
    else setTrouble("The demo is not there. Build the page with: npm run build");
  }, [openText]);
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    openFile(event.dataTransfer.files[0]);
  };
  if (source) return <Opened key={source.isServer ? "server" : "file"} source={source} />;
  return (
    <main className="welcome" onDragOver={(event) => event.preventDefault()} onDrop={drop}>
      <h1>Review</h1>
      <p>
        Open a file that <code>uvran review --out FILE</code> has written, or drop it here. It stays in this
        page: nothing is sent anywhere.
      </p>
      <p className="buttons">
        <label className="button">
          Open a file
          <input
            type="file"
            accept=".json,application/json"
            onChange={(event) => openFile(event.target.files?.[0])}
          />
        </label>
        <button type="button" onClick={() => void openDemo()}>
          Look at the demo
        </button>
      </p>
      {trouble !== undefined && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
    </main>
  );
}

function Opened({ source }: { source: Source }) {
  const open = useDesk(source);
  useEffect(() => {
    document.title = open.desk ? `${open.desk.project} · review` : "Review";
  }, [open.desk]);
  useEffect(() => {
    if (!(source instanceof FileSource)) return;
    const warn = (event: BeforeUnloadEvent): void => {
      if (!source.isSaved) event.preventDefault();
    };
    addEventListener("beforeunload", warn);
    return () => removeEventListener("beforeunload", warn);
  }, [source]);
  if (!open.desk)
    return (
      <main className="welcome">
        <h1>Review</h1>
        <p role={open.trouble === undefined ? "status" : "alert"}>{open.trouble ?? "Opening the review…"}</p>
      </main>
    );
  const save = source instanceof FileSource ? () => download(source.saved()) : undefined;
  return <Review open={open} canPropose={source.isServer} onSave={save} />;
}

function download(text: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "application/x-ndjson" }));
  link.download = "decisions.jsonl";
  link.click();
  URL.revokeObjectURL(link.href);
}

createRoot(document.getElementById("page")!).render(
  <StrictMode>
    <Page />
  </StrictMode>,
);
