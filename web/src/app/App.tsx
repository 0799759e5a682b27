import { MantineProvider } from "@mantine/core";
import { useWindowEvent } from "@mantine/hooks";
import { QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { SIGNED_OUT } from "@/api/client";
import { queries, useSession } from "@/api/queries";
import { BenchList } from "@/bench/BenchList";
import { BenchRun } from "@/bench/BenchRun";
import { BookList } from "@/book/BookList";
import { CompareRoom } from "@/compare/CompareRoom";
import { OrderList } from "@/day/OrderList";
import { OrderRoom } from "@/day/OrderRoom";
import { OrderSheets } from "@/day/OrderSheets";
import { KitchenRoom } from "@/kitchen/KitchenRoom";
import { LikesProvider } from "@/measures/likes";
import { SignIn } from "@/people/SignIn";
import { PlanList } from "@/plans/PlanList";
import { PlanRoom } from "@/plans/PlanRoom";
import { PlanSheets } from "@/sheets/PlanSheets";
import { House } from "./House";
import { Kept, Nothing, Waiting } from "./states";
import { inOurColours, theme } from "./theme";
import { inZone } from "./time";

// The chart is most of the weight of the front end, and only a record has one.
const BookRecord = lazy(() =>
  import("@/book/BookRecord").then((room) => ({ default: room.BookRecord })),
);

const nonce = document.querySelector<HTMLMetaElement>("meta[property=csp-nonce]")?.nonce ?? "";
// Read by the library that locks scrolling behind a dialog; without it the policy refuses its style.
Object.assign(globalThis, { __webpack_nonce__: nonce });

function Rooms() {
  const session = useSession();
  useWindowEvent(SIGNED_OUT, () => queries.invalidateQueries({ queryKey: ["session"] }));
  if (session.isPending) return <Waiting what="the bakehouse" />;
  if (session.isError) return <Nothing error={session.error} />;
  const { me } = session.data;
  inZone(session.data.time_zone);
  if (!me) return <SignIn session={session.data} />;
  return (
    <LikesProvider likes={me.likes}>
      <Routes>
        <Route path="/bench/:runId" element={<BenchRun />} />
        <Route element={<House me={me} />}>
          <Route
            index
            element={<Navigate to={me.role === "head" ? "/plans" : "/bench"} replace />}
          />
          <Route path="/plans" element={<PlanList />} />
          <Route path="/plans/compare" element={<CompareRoom />} />
          <Route path="/plans/:planId" element={<PlanRoom />} />
          <Route path="/plans/:planId/sheets" element={<PlanSheets />} />
          <Route path="/day" element={<OrderList />} />
          <Route path="/day/:orderId" element={<OrderRoom />} />
          <Route path="/day/:orderId/sheets" element={<OrderSheets />} />
          <Route path="/bench" element={<BenchList />} />
          <Route path="/book" element={<BookList />} />
          <Route
            path="/book/:runId"
            element={
              <Suspense fallback={<Waiting what="the record" />}>
                <BookRecord />
              </Suspense>
            }
          />
          <Route path="/kitchen" element={<KitchenRoom />} />
          <Route path="*" element={<Nothing />} />
        </Route>
      </Routes>
    </LikesProvider>
  );
}

export function App() {
  return (
    <MantineProvider
      theme={theme}
      cssVariablesResolver={inOurColours}
      getStyleNonce={() => nonce}
      forceColorScheme="light"
    >
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Kept>
            <Rooms />
          </Kept>
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
}
