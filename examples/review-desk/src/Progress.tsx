import { useEffect, useRef } from "react";
import { standsAs, type PlanChange, type Standings } from "uvran/core";

interface Props {
  readonly changes: readonly PlanChange[];
  readonly standings: Standings;
  readonly current: string | undefined;
  readonly onChoose: (id: string) => void;
}

const HEIGHT = 18;
const LEAST_CELL = 3;

/** A strip with a cell for each change, coloured by what is decided; a press goes there. The text beside it says the same. */
export function Progress({ changes, standings, current, onChoose }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const counts = { keep: 0, drop: 0, later: 0, again: 0, open: 0, done: 0, leave: 0 };
  for (const { id } of changes) counts[standsAs(standings.of(id))]++;
  useEffect(() => {
    const draw = (): void => paint(canvas.current!, changes, standings, current);
    draw();
    const dark = matchMedia("(prefers-color-scheme: dark)");
    addEventListener("resize", draw);
    dark.addEventListener("change", draw);
    return () => {
      removeEventListener("resize", draw);
      dark.removeEventListener("change", draw);
    };
  }, [changes, standings, current]);
  const decided = counts.keep + counts.drop + counts.later;
  const parts = [
    `${counts.keep} kept`,
    `${counts.drop} dropped`,
    `${counts.later} later`,
    ...(counts.again > 0 ? [`${counts.again} to decide again`] : []),
  ];
  return (
    <div className="progress">
      <p>
        <strong>
          {decided} of {changes.length}
        </strong>{" "}
        decided<span className="wide">: {parts.join(", ")}</span>
      </p>
      <canvas
        ref={canvas}
        height={HEIGHT}
        aria-hidden="true"
        onClick={(event) => {
          const { left, width } = event.currentTarget.getBoundingClientRect();
          const index = Math.floor(((event.clientX - left) / width) * changes.length);
          const change = changes[Math.min(Math.max(index, 0), changes.length - 1)];
          if (change) onChoose(change.id);
        }}
      />
    </div>
  );
}

function paint(
  canvas: HTMLCanvasElement,
  changes: readonly PlanChange[],
  standings: Standings,
  current: string | undefined,
): void {
  const style = getComputedStyle(canvas);
  const width = Math.max(canvas.clientWidth, 1);
  const ratio = devicePixelRatio || 1;
  canvas.width = width * ratio;
  canvas.height = HEIGHT * ratio;
  const context = canvas.getContext("2d");
  if (!context) return;
  context.scale(ratio, ratio);
  const cell = width / Math.max(changes.length, 1);
  const gap = cell > LEAST_CELL ? 1 : 0;
  for (const [i, { id }] of changes.entries()) {
    const isCurrent = id === current;
    context.fillStyle = style.getPropertyValue(`--cell-${standsAs(standings.of(id))}`);
    context.fillRect(
      i * cell,
      isCurrent ? 0 : 5,
      Math.max(cell - gap, 0.5),
      isCurrent ? HEIGHT : HEIGHT - 10,
    );
    if (!isCurrent) continue;
    context.fillStyle = style.getPropertyValue("--ink");
    context.fillRect(i * cell - 1, 0, Math.max(cell - gap, 1) + 2, 3);
    context.fillRect(i * cell - 1, HEIGHT - 3, Math.max(cell - gap, 1) + 2, 3);
  }
}
