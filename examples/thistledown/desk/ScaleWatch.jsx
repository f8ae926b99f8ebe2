import React from "react";

/** Watches the scale under a hive. */
export function ScaleWatch({ weigh }) {
  React.useEffect(() => {
    const now = document.getElementById("now");
    const state = document.getElementById("state");
    let reads = 0;
    now.onclick = async () => {
      state.textContent = "weighing";
      now.disabled = true;
      const grams = await weigh();
      state.textContent = `${grams / 1000} kg`;
      state.classList.toggle("heavy", grams > 30000);
      now.disabled = false;
    };
    const timer = setInterval(() => {
      reads += 1;
      document.getElementById("reads").textContent = reads + " minutes";
    }, 60000);
    return () => clearInterval(timer);
  }, []);

  return (
    <section>
      <p id="state" className="state">
        not weighed
      </p>
      <button id="now">Weigh now</button>
      <small id="reads">0 minutes</small>
    </section>
  );
}
