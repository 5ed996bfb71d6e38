import { QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { cache } from "./api/cache";
import "./app.css";
import { drafts } from "./kit/form/drafts";
import { applyBench } from "./kit/bench";
import { listenForKeys } from "./kit/keys";
import { ToastProvider } from "./kit/Toast";
import { router } from "./router";

applyBench();
drafts.tidy(Date.now());
// Lets dialogs hold the scroll under the strict content policy.
setNonce(document.querySelector<HTMLMetaElement>("meta[name=lowfell-nonce]")?.content ?? "");

listenForKeys(
  () => router.state.navigation.state !== "idle",
  (call) => router.subscribe(call),
);

createRoot(document.getElementById("app")!).render(
  <StrictMode>
    <QueryClientProvider client={cache}>
      <ToastProvider>
        <RouterProvider router={router} />
      </ToastProvider>
    </QueryClientProvider>
  </StrictMode>,
);
