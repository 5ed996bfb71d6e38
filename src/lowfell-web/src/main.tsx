import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import "./app.css";
import { applyBench } from "./kit/bench";
import { ToastProvider } from "./kit/Toast";
import { router } from "./router";

applyBench();
// Lets dialogs hold the scroll under the strict content policy.
setNonce(document.querySelector<HTMLMetaElement>("meta[name=lowfell-nonce]")?.content ?? "");
const queries = new QueryClient({ defaultOptions: { queries: { staleTime: 5_000, retry: 1 } } });

createRoot(document.getElementById("app")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <ToastProvider>
        <RouterProvider router={router} />
      </ToastProvider>
    </QueryClientProvider>
  </StrictMode>,
);
