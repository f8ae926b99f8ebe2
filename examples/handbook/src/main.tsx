import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import "../../common/colours.css";
import "./style.css";
import { Handbook } from "./Handbook";

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <Handbook />
  </StrictMode>,
);
