import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { queryClient } from "./data/queryClient";
import { keepShell } from "./data/shell";
import { Home } from "./screens/Home";
import "./styles/base.css";

// The family's page is a program of its own: a phone at home loads nothing of the teacher's.
const token = location.pathname.split("/")[2] ?? "";

// It can be put on the home screen under its own address.
const manifest = document.createElement("link");
manifest.rel = "manifest";
manifest.href = `/home/${token}/app.webmanifest`;
document.head.append(manifest);

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <Home token={token} />
      </QueryClientProvider>
    </StrictMode>,
  );

keepShell("/home/").catch(() => {
  // Without it everything works, as long as there is a connection.
});
