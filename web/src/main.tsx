import "@fontsource-variable/fraunces/opsz.css";
import "@fontsource-variable/hanken-grotesk";
import "@mantine/core/styles.css";
import "@/app/app.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "@/app/App";
import { keepFocus } from "@/app/focus";

const root = document.getElementById("root");
if (root) {
  keepFocus(document);
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
