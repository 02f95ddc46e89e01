import { QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { queryClient } from "./data/queryClient";
import { keepShell } from "./data/shell";
import { loadAhead, router } from "./router";
import "./styles/base.css";

// Dialogs add a style element of their own; the policy allows it by this nonce.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? "");

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );

addEventListener("load", () => setTimeout(() => void loadAhead().catch(() => {}), 1_500));

keepShell().catch(() => {
  // Without it everything works, as long as there is a connection.
});
