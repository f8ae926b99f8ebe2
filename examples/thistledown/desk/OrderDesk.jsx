import React, { useEffect } from "react";
import { priceOf } from "./prices";

/** The desk at which a keeper orders jars. */
export function OrderDesk({ kind }) {
  useEffect(() => {
    const jars = document.getElementById("jars");
    const more = document.getElementById("more");
    const less = document.getElementById("less");
    const gift = document.getElementById("gift");
    const ribbon = document.getElementById("ribbon");
    // As many as most people take.
    let count = 2;
    let isGift = false;

    function show() {
      jars.textContent = `${count} jars`;
      less.disabled = count === 1;
      ribbon.style.display = isGift ? "inline" : "none";
    }
    const add = () => {
      count += 1;
      show();
    };
    const take = () => {
      if (count > 1) {
        count--;
      }
      show();
    };
    const wrap = () => {
      isGift = !isGift;
      show();
    };
    more.addEventListener("click", add);
    less.addEventListener("click", take);
    gift.addEventListener("click", wrap);
    show();
    return () => {
      more.removeEventListener("click", add);
      less.removeEventListener("click", take);
      gift.removeEventListener("click", wrap);
    };
  }, []);

  return (
    <form>
      <h1>
        {kind}, {priceOf(kind)} a jar
      </h1>
      <button id="less" type="button">
        one less
      </button>
      <b id="jars">2 jars</b>
      <button id="more" type="button">
        one more
      </button>
      <label htmlFor="gift">as a gift</label>
      <input id="gift" type="checkbox" />
      <i id="ribbon">with a ribbon</i>
    </form>
  );
}
