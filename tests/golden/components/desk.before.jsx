import React, { useEffect, useLayoutEffect, useState } from "react";

export function Counted() {
  useEffect(() => {
    let count = 0;
    const add = document.getElementById("add");
    const label = document.getElementById("count");
    add.addEventListener("click", () => {
      count += 1;
      label.textContent = String(count);
    });
  }, []);
  return (
    <div>
      <button id="add">Add</button>
      <span id="count">0</span>
    </div>
  );
}

// The text is another one at first than the state says: it is set with the first click only.
export const LateText = () => {
  useEffect(() => {
    let count = 0;
    const add = document.getElementById("late-add");
    const label = document.getElementById("late");
    const step = 2;
    add.onclick = function () {
      count = count + step;
      label.textContent = "Jars: " + count;
    };
  }, []);
  return (
    <div>
      <button id="late-add">Add</button>
      <span id="late">Nothing yet</span>
    </div>
  );
};

export function Order() {
  useEffect(() => {
    let jars = 1;
    let gift = false;
    // All of the page.
    function show() {
      document.getElementById("jars").textContent = jars;
      document.getElementById("less").disabled = jars === 1;
      document.getElementById("note").style.display = gift ? "block" : "none";
      document.getElementById("order").classList.toggle("gift", gift);
    }
    document.getElementById("more").onclick = () => {
      jars = jars + 1;
      show();
    };
    document.getElementById("less").onclick = function () {
      if (jars > 1) {
        jars -= 1;
      }
      show();
    };
    document.getElementById("gift").addEventListener("click", () => {
      gift = !gift;
      show();
    });
    show();
  }, []);
  return (
    <form id="order" className="order">
      <label htmlFor="gift">Gift</label>
      <input type="checkbox" id="gift" />
      <button type="button" id="less">-</button>
      <b id="jars"></b>
      <button type="button" id="more">+</button>
      <p id="note">Wrapped.</p>
    </form>
  );
}

export function Status() {
  useLayoutEffect(() => {
    const status = document.getElementById("status");
    const send = document.getElementById("send");
    const reset = document.querySelector("#reset");
    if (!status || !send || !reset) return;
    // What was sent cannot be sent again.
    const done = async () => {
      status.textContent = "Sending";
      send.disabled = true;
      await Promise.resolve();
      status.textContent = "Sent";
      status.setAttribute("aria-label", "sent");
    };
    const again = () => {
      status.textContent = "";
      send.disabled = false;
    };
    send.addEventListener("click", done);
    reset.addEventListener("click", again);
    return () => {
      send.removeEventListener("click", done);
      reset.removeEventListener("click", again);
    };
  }, []);
  return (
    <div>
      <p id="status" aria-label="waiting" />
      <button id="send">Send</button>
      <button id="reset" disabled={false}>
        Again
      </button>
    </div>
  );
}

export function Clock() {
  useEffect(() => {
    let seconds = 0;
    const label = document.getElementById("seconds");
    const timer = setInterval(() => {
      seconds += 1;
      label.textContent = seconds + " s";
    }, 1000);
    return () => clearInterval(timer);
  }, []);
  return <p id="seconds">0 s</p>;
}

export function Limited() {
  useEffect(() => {
    const button = document.getElementById("try");
    const left = document.getElementById("left");
    if (button && left) {
      let tries = 3;
      const show = () => {
        left.textContent = `${tries} of 3 left`;
      };
      button.addEventListener("click", () => {
        if (tries === 0) return;
        tries--;
        if (tries === 0) {
          button.disabled = true;
          button.className = "spent";
        }
        show();
      });
      show();
    }
  }, []);
  return (
    <div>
      <button id="try" className="fresh">Try</button>
      <i id="left">Ask</i>
    </div>
  );
}

export function Typed() {
  useEffect(() => {
    const box = document.getElementById("term");
    const hint = document.getElementById("hint");
    let count = 0;
    box.addEventListener("input", (event) => {
      count += 1;
      if (count > 2) hint.title = "Slow down";
      hint.className = event.target.value.length > 3 ? "hint good" : "hint";
    });
    box.focus();
    return () => console.log("gone");
  }, []);
  return (
    <div>
      <input id="term" />
      <p className="hint" title="" id="hint">Type</p>
    </div>
  );
}

export function Chosen({ names = ["Ada", "Grace"] }) {
  useEffect(() => {
    let chosen = null;
    const list = document.getElementById("pick");
    const out = document.getElementById("out");
    const clear = document.getElementById("clear");
    list.addEventListener("change", () => {
      chosen = list.value;
      out.textContent = chosen ?? "nobody";
    });
    clear.addEventListener("click", () => {
      chosen = null;
      list.value = names[0];
      out.textContent = chosen ?? "nobody";
    });
  }, []);
  return (
    <div>
      <select id="pick"><option>Ada</option><option>Grace</option></select>
      <button id="clear">Clear</button>
      <output id="out">nobody</output>
    </div>
  );
}

export function Begun({ start = 4 }) {
  const [title, setTitle] = useState("Hives");
  React.useEffect(() => {
    let count = start;
    let isOpen = true;
    const add = document.getElementById("begun-add");
    const label = document.getElementById("begun");
    add.addEventListener("click", () => {
      const before = count;
      count *= 2;
      label.textContent = count;
      label.classList.add("changed");
      setTitle(`${before} before`);
    });
    add.addEventListener("dblclick", () => {
      isOpen = !isOpen;
      label.hidden = !isOpen;
    });
  }, []);
  return (
    <div title={title}>
      <button id="begun-add">Twice</button>
      <span id="begun">{start}</span>
    </div>
  );
}

// Left alone, each for a reason.
export function Together() {
  useEffect(() => {
    let a = 1;
    const add = document.getElementById("two");
    const label = document.getElementById("sum");
    add.addEventListener("click", () => {
      setTimeout(() => {
        label.textContent = String(a);
      }, 10);
      a += 1;
    });
  }, []);
  return <div><button id="two">+</button><span id="sum">1</span></div>;
}

export function Grown() {
  useEffect(() => {
    const list = [];
    const add = document.getElementById("grow");
    const label = document.getElementById("grown");
    add.addEventListener("click", () => {
      list.push(1);
      label.textContent = list.length;
    });
  }, []);
  return <div><button id="grow">+</button><span id="grown">0</span></div>;
}
