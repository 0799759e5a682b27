import "@fontsource-variable/fraunces/opsz.css";
import "@fontsource-variable/hanken-grotesk";
import "@/app/mantine";
import "@/app/app.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { queries } from "@/api/queries";
import { App } from "@/app/App";
import { keepFocus } from "@/app/focus";
import { keepWhatIsRead } from "@/offline/keep";
import { register } from "@/offline/worker";

const root = document.getElementById("root");
if (root) {
  keepFocus(document);
  // what is kept for a day without a network comes after what is wanted now
  setTimeout(register, 3_000);
  // what was read last first, unless the browser takes its time to find it
  const atMost = new Promise((done) => setTimeout(done, 1_500));
  void Promise.race([keepWhatIsRead(queries), atMost]).then(() =>
    createRoot(root).render(
      <StrictMode>
        <App />
      </StrictMode>,
    ),
  );
}
