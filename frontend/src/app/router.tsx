import { createBrowserRouter, Navigate, type RouteObject } from "react-router";
import { Loading } from "../components/States";
import { BoardPage } from "../features/board/BoardPage";
import { EmergencyPage } from "../features/emergency/EmergencyPage";
import { MOVED } from "../lib/addresses";
import { Broken } from "./Broken";
import { Go } from "./Go";
import { Moved } from "./Moved";
import { Shell } from "./Shell";

// In the first load: the emergency page, which must open without a server, and Today, where most begin. Every
// other station is lazy.
const stations: RouteObject[] = [
  {
    path: "/",
    lazy: async () => ({ Component: (await import("../features/pools/PoolListPage")).PoolListPage }),
  },
  {
    path: "/pools/new",
    lazy: async () => ({ Component: (await import("../features/pools/GuidedPage")).GuidedPage }),
  },
  {
    path: "/pools/new/all",
    lazy: async () => ({ Component: (await import("../features/pools/SetupPage")).AllAtOncePage }),
  },
  {
    path: "/pools/:poolId",
    element: <BoardPage />,
  },
  {
    path: "/pools/:poolId/test",
    lazy: async () => {
      const Component = (await import("../features/test/TestPage")).TestPage;
      // Where a saved test leads is loaded while one still types.
      import("../features/treatment/TreatmentPage").catch(() => undefined);
      return { Component };
    },
  },
  {
    path: "/pools/:poolId/plan",
    lazy: async () => ({
      Component: (await import("../features/treatment/TreatmentPage")).TreatmentPage,
    }),
  },
  {
    path: "/pools/:poolId/log",
    lazy: async () => ({ Component: (await import("../features/log/LogPage")).LogPage }),
  },
  {
    path: "/pools/:poolId/setup",
    lazy: async () => ({ Component: (await import("../features/pools/SetupPage")).ChangePoolPage }),
  },
  {
    path: "/pools/:poolId/care",
    lazy: async () => ({
      Component: (await import("../features/maintenance/MaintenancePage")).MaintenancePage,
    }),
  },
  {
    path: "/pools/:poolId/care/equipment",
    lazy: async () => ({
      Component: (await import("../features/maintenance/EquipmentPage")).EquipmentPage,
    }),
  },
  {
    path: "/pools/:poolId/care/calendar",
    lazy: async () => ({
      Component: (await import("../features/maintenance/CalendarPage")).CalendarPage,
    }),
  },
  {
    path: "/pools/:poolId/care/do/:key",
    lazy: async () => ({
      Component: (await import("../features/maintenance/ProcedurePage")).ProcedurePage,
    }),
  },
  {
    path: "/pools/:poolId/what-is-it",
    lazy: async () => ({ Component: (await import("../features/algae/IdentifyPage")).IdentifyPage }),
  },
  {
    path: "/pools/:poolId/visit",
    lazy: async () => ({ Component: (await import("../features/visits/VisitPage")).VisitPage }),
  },
  {
    path: "/pools/:poolId/week",
    lazy: async () => ({ Component: (await import("../features/treatment/WeeklyPage")).WeeklyPage }),
  },
  {
    path: "/pools/:poolId/rescue",
    lazy: async () => ({ Component: (await import("../features/algae/RescuePage")).RescuePage }),
  },
  {
    path: "/pools/:poolId/season",
    lazy: async () => ({ Component: (await import("../features/season/SeasonPage")).SeasonPage }),
  },
  {
    path: "/pools/:poolId/notice",
    lazy: async () => ({ Component: (await import("../features/visits/NoticePage")).NoticePage }),
  },
  {
    path: "/pools/:poolId/report",
    lazy: async () => ({ Component: (await import("../features/visits/ReportPage")).ReportPage }),
  },
  {
    path: "/round",
    lazy: async () => ({ Component: (await import("../features/visits/RoundPage")).RoundPage }),
  },
  {
    path: "/round/weeks",
    lazy: async () => ({ Component: (await import("../features/visits/WeeksPage")).WeeksPage }),
  },
  {
    path: "/practice",
    lazy: async () => ({ Component: (await import("../features/training/TrainingPage")).TrainingPage }),
  },
  {
    path: "/shelf/costs",
    lazy: async () => ({ Component: (await import("../features/products/CostsPage")).CostsPage }),
  },
  {
    path: "/shelf",
    lazy: async () => ({ Component: (await import("../features/products/InventoryPage")).InventoryPage }),
  },
  {
    path: "/account",
    lazy: async () => ({ Component: (await import("../features/account/AccountPage")).AccountPage }),
  },
  {
    path: "/people",
    lazy: async () => ({ Component: (await import("../features/account/PeoplePage")).PeoplePage }),
  },
  {
    path: "/files",
    lazy: async () => ({ Component: (await import("../features/files/FilesPage")).FilesPage }),
  },
  {
    path: "/files/:fileId",
    lazy: async () => ({ Component: (await import("../features/files/ImportPage")).ImportPage }),
  },
  {
    path: "/join/:secret",
    lazy: async () => ({ Component: (await import("../features/account/JoinPage")).JoinPage }),
  },
  {
    path: "/unsubscribe/:secret",
    lazy: async () => ({
      Component: (await import("../features/account/UnsubscribePage")).UnsubscribePage,
    }),
  },
  {
    path: "/share/:secret",
    lazy: async () => ({ Component: (await import("../features/account/SharePage")).SharePage }),
  },
  {
    path: "/guest/:secret",
    lazy: async () => ({ Component: (await import("../features/account/GuestPage")).GuestPage }),
  },
  ...Object.entries(MOVED).map(([before, to]) => ({
    path: `/pools/:poolId/${before}`,
    element: <Moved to={to} />,
  })),
  { path: "/go/:what", element: <Go /> },
  {
    path: "/help",
    lazy: async () => ({ Component: (await import("../features/help/HelpPage")).HelpPage }),
  },
  {
    path: "/help/:page",
    lazy: async () => ({ Component: (await import("../features/help/HelpPage")).HelpPage }),
  },
  { path: "/pools", element: <Navigate replace to="/" /> }, // what stands before a pool's own address
  { path: "/emergency", element: <EmergencyPage /> },
  {
    path: "*",
    lazy: async () => ({ Component: (await import("../features/pools/PoolListPage")).LostPage }),
  },
];

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    // Opened by its own address, a station's shape stands in the frame until its script is there.
    children: stations.map((route) => ({ hydrateFallbackElement: <Loading what="the page" />, ...route })),
  },
]);
