import { QueryClientProvider } from "@tanstack/react-query";
import { App as AntApp, ConfigProvider } from "antd";
import { lazy, StrictMode, Suspense, useEffect } from "react";
import { createRoot } from "react-dom/client";
import { ErrorBoundary } from "react-error-boundary";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { queryClient, useHouse, useMe } from "./api/queries";
import "./ui/global.css";
import { usePreferences } from "./lib/preferences";
import { palette, themeOf } from "./ui/theme";
import { Trouble } from "./ui/Trouble";
import { Broken } from "./ui/Broken";

const DoorPage = lazy(() => import("./door/DoorPage"));
const TodayPage = lazy(() => import("./today/TodayPage"));
const ClientsPage = lazy(() => import("./clients/ClientsPage"));
const ClientCard = lazy(() => import("./clients/ClientCard"));
const PlansPage = lazy(() => import("./plans/PlansPage"));
const PlanWorkspace = lazy(() => import("./plan/workspace/PlanWorkspace"));
const CalendarPage = lazy(() => import("./calendar/CalendarPage"));
const SuppliesPage = lazy(() => import("./supplies/SuppliesPage"));
const ItemCard = lazy(() => import("./supplies/ItemCard"));
const ChairPage = lazy(() => import("./chair/ChairPage"));
const WearPage = lazy(() => import("./wear/WearPage"));
const WornHeadPage = lazy(() => import("./wear/WornHeadPage"));
const LogPage = lazy(() => import("./log/LogPage"));
const InstallLog = lazy(() => import("./log/InstallLog"));
const QuotePage = lazy(() => import("./quotes/QuotePage"));
const HouseRulesPage = lazy(() => import("./house/HouseRulesPage"));

const nonce = document.querySelector<HTMLMetaElement>("meta[name=csp-nonce]")?.content ?? "";

/**
 * Where dialogs, drawers and lists open. On the page's own body they would add styles that
 * the content policy forbids; here the page behind is held still by a rule of ours.
 */
const overlays = () => document.getElementById("overlays") ?? document.body;

/** The palette as custom properties, for the style sheets. */
function usePalette(dim: boolean) {
  useEffect(() => {
    const colours = palette[dim ? "dim" : "day"];
    const style = document.documentElement.style;
    for (const [name, value] of Object.entries(colours))
      style.setProperty(`--${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`, value);
    style.setProperty("--marigold-bright", palette.dim.marigold);
    style.colorScheme = dim ? "dark" : "light";
    document.documentElement.dataset.looks = dim ? "dim" : "light";
  }, [dim]);
}

function Kladotex() {
  const dim = usePreferences((p) => p.dim);
  usePalette(dim);
  return (
    <ConfigProvider theme={themeOf(dim)} csp={{ nonce }} getPopupContainer={overlays} virtual={false}>
      <AntApp>
        <ErrorBoundary FallbackComponent={Broken}>
          <Studio />
        </ErrorBoundary>
      </AntApp>
    </ConfigProvider>
  );
}

/** Has the studio's own clock be that of every day and time on the page. */
function StudioClock() {
  useHouse();
  return null;
}

/** The places of the studio, behind the door. */
function Studio() {
  const me = useMe();
  if (me.error) return <Trouble error={me.error} retry={() => void me.refetch()} />;
  if (me.data === undefined) return null;
  if (me.data === null)
    return (
      <Suspense>
        <DoorPage />
      </Suspense>
    );
  return (
    <BrowserRouter>
      <StudioClock />
      <Suspense>
        <Routes>
          <Route path="/" element={<TodayPage />} />
          <Route path="/clients" element={<ClientsPage />} />
          <Route path="/clients/:id" element={<ClientCard />} />
          <Route path="/plans" element={<PlansPage />} />
          <Route path="/plans/:id/:step?" element={<PlanWorkspace />} />
          <Route path="/chair/:id" element={<ChairPage />} />
          <Route path="/wear" element={<WearPage />} />
          <Route path="/wear/:id" element={<WornHeadPage />} />
          <Route path="/log" element={<LogPage />} />
          <Route path="/log/:id" element={<InstallLog />} />
          <Route path="/calendar" element={<CalendarPage />} />
          <Route path="/supplies/items/:id" element={<ItemCard />} />
          <Route path="/supplies/:part?" element={<SuppliesPage />} />
          <Route path="/quotes/:id" element={<QuotePage />} />
          <Route path="/house" element={<HouseRulesPage />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </BrowserRouter>
  );
}

// The application stays on the device, so that the chair opens without a connection. Its files are
// fetched once the page that was asked for stands, so that it does not wait for them.
const settle = 8000; // ms
if (import.meta.env.PROD && "serviceWorker" in navigator)
  setTimeout(() => void navigator.serviceWorker.register("/sw.js").catch(() => undefined), settle);

const root = document.getElementById("root");
if (!root) throw new Error("the page has no root element");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Kladotex />
    </QueryClientProvider>
  </StrictMode>,
);
