/** What React calls the listeners of events, and what it does otherwise than the document. */

interface EventFacts {
  readonly prop: string;
  /** May many of them be handled before what the first one changed is shown? */
  readonly isFlood?: true;
  /** The elements for which the listener is called when the document calls it; all where it says none. */
  readonly only?: readonly string[];
}

const plain = (prop: string): EventFacts => ({ prop });
const flood = (prop: string): EventFacts => ({ prop, isFlood: true });
const FOCUSED = ["input", "select", "textarea", "button"];

export const EVENTS: Readonly<Record<string, EventFacts>> = {
  click: plain("onClick"),
  dblclick: plain("onDoubleClick"),
  contextmenu: plain("onContextMenu"),
  input: plain("onInput"),
  submit: plain("onSubmit"),
  reset: plain("onReset"),
  keydown: plain("onKeyDown"),
  keyup: plain("onKeyUp"),
  mousedown: plain("onMouseDown"),
  mouseup: plain("onMouseUp"),
  pointerdown: plain("onPointerDown"),
  pointerup: plain("onPointerUp"),
  touchend: plain("onTouchEnd"),
  paste: plain("onPaste"),
  copy: plain("onCopy"),
  cut: plain("onCut"),
  drop: plain("onDrop"),
  dragstart: plain("onDragStart"),
  dragend: plain("onDragEnd"),
  dragover: flood("onDragOver"),
  mousemove: flood("onMouseMove"),
  mouseenter: flood("onMouseEnter"),
  mouseleave: flood("onMouseLeave"),
  mouseover: flood("onMouseOver"),
  mouseout: flood("onMouseOut"),
  pointermove: flood("onPointerMove"),
  // React hears these from what is inside the element as well: here nothing is.
  focus: { prop: "onFocus", only: FOCUSED },
  blur: { prop: "onBlur", only: FOCUSED },
  // In a text field React calls it for each letter.
  change: { prop: "onChange", only: ["select"] },
};

/** What listeners read of an event that React's events have as well. */
export const EVENT_MEMBERS = new Set(
  (
    "target currentTarget preventDefault stopPropagation key code clientX clientY pageX pageY screenX screenY ctrlKey " +
    "shiftKey altKey metaKey button buttons deltaX deltaY dataTransfer clipboardData type repeat detail relatedTarget " +
    "defaultPrevented pointerId touches changedTouches"
  ).split(" "),
);
