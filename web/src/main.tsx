import { QueryClientProvider } from "@tanstack/react-query";
import { App as AntApp, ConfigProvider } from "antd";
import { lazy, StrictMode, Suspense, useEffect } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { queryClient } from "./api/queries";
import "./app/global.css";
import { usePreferences } from "./app/preferences";
import { palette, themeOf } from "./app/theme";
import { PlansPage } from "./plans/PlansPage";

const PlanWorkspace = lazy(() => import("./workspace/PlanWorkspace"));

const nonce = document.querySelector<HTMLMetaElement>("meta[name=csp-nonce]")?.content ?? "";

/** The palette as custom properties, for the style sheets. */
function usePalette(dim: boolean) {
  useEffect(() => {
    const colours = palette[dim ? "dim" : "day"];
    const style = document.documentElement.style;
    for (const [name, value] of Object.entries(colours))
      style.setProperty(`--${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`, value);
    style.setProperty("--marigold-bright", palette.dim.marigold);
    style.colorScheme = dim ? "dark" : "light";
  }, [dim]);
}

function Kladotex() {
  const dim = usePreferences((p) => p.dim);
  usePalette(dim);
  return (
    <ConfigProvider theme={themeOf(dim)} csp={{ nonce }}>
      <AntApp>
        <BrowserRouter>
          <Suspense>
            <Routes>
              <Route path="/plans" element={<PlansPage />} />
              <Route path="/plans/:id/:step?" element={<PlanWorkspace />} />
              <Route path="*" element={<Navigate to="/plans" replace />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
      </AntApp>
    </ConfigProvider>
  );
}

const root = document.getElementById("root");
if (!root) throw new Error("the page has no root element");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Kladotex />
    </QueryClientProvider>
  </StrictMode>,
);
