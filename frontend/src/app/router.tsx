import { createBrowserRouter } from "react-router";
import { EmergencyPage } from "../features/emergency/EmergencyPage";
import { Broken } from "./Broken";
import { Shell } from "./Shell";

// The emergency page is in the first load: it must open without a server. Every station is lazy.
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: <span />,
    children: [
      { path: "/", lazy: async () => ({ Component: (await import("../features/deck/DeckPage")).DeckPage }) },
      {
        path: "/pools/new",
        lazy: async () => ({ Component: (await import("../features/setup/SetupPage")).NewPoolPage }),
      },
      {
        path: "/pools/:poolId",
        lazy: async () => ({ Component: (await import("../features/board/BoardPage")).BoardPage }),
      },
      {
        path: "/pools/:poolId/slip",
        lazy: async () => {
          const Component = (await import("../features/slip/SlipPage")).SlipPage;
          // Where a saved test leads is loaded while one still types.
          void import("../features/board/BoardPage");
          void import("../features/sheet/SheetPage");
          return { Component };
        },
      },
      {
        path: "/pools/:poolId/sheet",
        lazy: async () => ({ Component: (await import("../features/sheet/SheetPage")).SheetPage }),
      },
      {
        path: "/pools/:poolId/log",
        lazy: async () => ({ Component: (await import("../features/log/LogPage")).LogPage }),
      },
      {
        path: "/pools/:poolId/setup",
        lazy: async () => ({ Component: (await import("../features/setup/SetupPage")).ChangePoolPage }),
      },
      {
        path: "/pools/:poolId/care",
        lazy: async () => ({ Component: (await import("../features/care/CarePage")).CarePage }),
      },
      {
        path: "/pools/:poolId/care/benches",
        lazy: async () => ({ Component: (await import("../features/care/BenchesPage")).BenchesPage }),
      },
      {
        path: "/pools/:poolId/care/calendar",
        lazy: async () => ({ Component: (await import("../features/care/CalendarPage")).CalendarPage }),
      },
      {
        path: "/pools/:poolId/care/do/:key",
        lazy: async () => ({ Component: (await import("../features/care/ProcedurePage")).ProcedurePage }),
      },
      {
        path: "/pools/:poolId/what-is-it",
        lazy: async () => ({ Component: (await import("../features/rescue/IdentifyPage")).IdentifyPage }),
      },
      {
        path: "/pools/:poolId/rescue",
        lazy: async () => ({ Component: (await import("../features/rescue/RescuePage")).RescuePage }),
      },
      {
        path: "/pools/:poolId/season",
        lazy: async () => ({ Component: (await import("../features/season/SeasonPage")).SeasonPage }),
      },
      {
        path: "/pools/:poolId/notice",
        lazy: async () => ({ Component: (await import("../features/round/NoticePage")).NoticePage }),
      },
      {
        path: "/pools/:poolId/report",
        lazy: async () => ({ Component: (await import("../features/round/ReportPage")).ReportPage }),
      },
      {
        path: "/round",
        lazy: async () => ({ Component: (await import("../features/round/RoundPage")).RoundPage }),
      },
      {
        path: "/practice",
        lazy: async () => ({ Component: (await import("../features/practice/PracticePage")).PracticePage }),
      },
      {
        path: "/shelf",
        lazy: async () => ({ Component: (await import("../features/shelf/ShelfPage")).ShelfPage }),
      },
      { path: "/emergency", element: <EmergencyPage /> },
      { path: "*", lazy: async () => ({ Component: (await import("../features/deck/DeckPage")).LostPage }) },
    ],
  },
]);
