import React, { useEffect } from "react";

/** Weighs a hive three times at most. */
export const Scale = ({ hive = "north" }: { hive?: string }) => {
  useEffect(() => {
    const button = document.getElementById("weigh") as HTMLButtonElement | null;
    const status = document.querySelector<HTMLSpanElement>("#status");
    if (!button || !status) return;
    // How often it was weighed.
    let times = 0;
    let isOpen = false;

    const weigh = () => {
      times++;
      status.textContent = `${times} times`;
      button.disabled = times >= 3;
    };
    const toggle = (event: MouseEvent) => {
      event.preventDefault();
      isOpen = !isOpen;
      status.classList.toggle("open", isOpen);
    };
    button.addEventListener("click", weigh);
    status.addEventListener("click", toggle);
    return () => {
      button.removeEventListener("click", weigh);
      status.removeEventListener("click", toggle);
    };
  }, []);

  return (
    <section>
      <button id="weigh" type="button">
        Weigh {hive}
      </button>
      <span id="status" className="status">
        0 times
      </span>
    </section>
  );
};

export function Names() {
  React.useEffect(() => {
    let chosen: string | null = null;
    const list = document.getElementById("pick") as HTMLSelectElement;
    const out = document.getElementById("out")!;
    const clear = document.getElementById("clear") as HTMLButtonElement;
    list.addEventListener("change", () => {
      chosen = list.value;
      out.textContent = chosen ?? "nobody";
    });
    clear.addEventListener("click", () => {
      chosen = null;
      list.value = "Grace";
      out.textContent = chosen ?? "nobody";
    });
  }, []);
  return (
    <div>
      <select id="pick">
        <option>Ada</option>
        <option>Grace</option>
      </select>
      <button id="clear">Clear</button>
      <output id="out">nobody</output>
    </div>
  );
}

export function Focused(): React.JSX.Element {
  useEffect(() => {
    const box = document.getElementById("box") as HTMLInputElement | null;
    const letters = document.getElementById("letters");
    if (!box || !letters) return;
    box.focus();
    box.addEventListener("input", (event: Event) => {
      letters.textContent = `${(event.target as HTMLInputElement).value.length} letters`;
    });
  }, []);
  return (
    <label>
      <input id="box" />
      <i id="letters">0 letters</i>
    </label>
  );
}
