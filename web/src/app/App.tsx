import { MantineProvider } from "@mantine/core";
import { useWindowEvent } from "@mantine/hooks";
import { QueryClientProvider } from "@tanstack/react-query";
import { Suspense, useEffect, useState } from "react";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { LEFT, type Schemas, SIGNED_OUT } from "@/api/client";
import { queries, useSession } from "@/api/queries";
import { LikesProvider } from "@/measures/likes";
import { forgetTheHouse } from "@/offline/forget";
import { lookAfter } from "@/offline/outbox";
import { useAhead } from "@/offline/useAhead";
import { LEFT_HERE } from "@/wire/leaving";
import { House } from "./House";
import {
  BenchList,
  BenchRun,
  Bin,
  BookList,
  BookRecord,
  ClassRoom,
  CompareRoom,
  DayPaper,
  Drawings,
  FirstStart,
  InsideRoom,
  KitchenRoom,
  LessonRoom,
  LessonsRoom,
  MorningRoom,
  OrderList,
  OrderRoom,
  OrderSheets,
  People,
  PlanList,
  PlanPaper,
  PlanRoom,
  PlanSheets,
  SignIn,
  SignInAgain,
  StockRoom,
  StoreRoom,
  TodayRoom,
  TraceSheet,
  TrendsRoom,
  useNear,
} from "./rooms";
import { Kept, Nothing, Waiting } from "./states";
import { inOurColours, theme } from "./theme";
import { inZone } from "./time";

const nonce = document.querySelector<HTMLMetaElement>("meta[property=csp-nonce]")?.nonce ?? "";
// Read by the library that locks scrolling behind a dialog; without it the policy refuses its style.
Object.assign(globalThis, { __webpack_nonce__: nonce });

function Rooms() {
  const session = useSession();
  const [here, setHere] = useState<Schemas["Me"] | null>(null);
  useWindowEvent(SIGNED_OUT, () => queries.invalidateQueries({ queryKey: ["session"] }));
  useWindowEvent(LEFT, () => setHere(null));
  useWindowEvent("storage", ({ key }) => {
    if (key !== LEFT_HERE) return;
    setHere(null);
    queries.setQueryData<Schemas["Session"]>(["session"], (was) => was && { ...was, me: null });
    void forgetTheHouse(queries);
  });
  useEffect(lookAfter, []);
  const me = session.data?.me ?? null;
  useEffect(() => {
    if (me) setHere(me);
  }, [me]);
  if (session.isPending) return <Waiting what="the bakehouse" />;
  // A failed look at the session is no reason to take away the work on the screen.
  if (session.isError && !session.data) {
    return <Nothing error={session.error} retry={session.refetch} />;
  }
  inZone(session.data.time_zone);
  if (session.data.nobody_yet) return <FirstStart />;
  if (!me && !here) return <SignIn session={session.data} />;
  const who = me ?? here;
  if (!who) return null;
  return (
    <>
      {!me && <SignInAgain session={session.data} who={who.username} />}
      <AllRooms me={who} />
    </>
  );
}

function AllRooms({ me }: { me: Schemas["Me"] }) {
  useAhead();
  useNear();
  return (
    <LikesProvider likes={me.likes}>
      <Routes>
        <Route
          path="/bench/:runId"
          element={
            <Suspense fallback={<Waiting what="the bench" />}>
              <BenchRun />
            </Suspense>
          }
        />
        <Route
          path="/lessons/:lessonKey"
          element={
            <Suspense fallback={<Waiting what="the lesson" />}>
              <LessonRoom />
            </Suspense>
          }
        />
        <Route element={<House me={me} />}>
          <Route
            index
            element={<Navigate to={me.role === "head" ? "/plans" : "/bench"} replace />}
          />
          <Route path="/plans" element={<PlanList />} />
          <Route path="/plans/compare" element={<CompareRoom />} />
          <Route path="/plans/:planId" element={<PlanRoom />} />
          <Route path="/plans/:planId/sheets" element={<PlanSheets />} />
          <Route path="/plans/:planId/paper" element={<PlanPaper />} />
          <Route path="/day" element={<OrderList />} />
          <Route path="/day/:orderId" element={<OrderRoom />} />
          <Route path="/day/:orderId/sheets" element={<OrderSheets />} />
          <Route path="/day/:orderId/paper" element={<DayPaper />} />
          <Route path="/today" element={<TodayRoom />} />
          <Route path="/bench" element={<BenchList />} />
          <Route path="/store" element={<StoreRoom />} />
          <Route path="/store/stock" element={<StockRoom />} />
          <Route path="/store/:blockId" element={<StoreRoom />} />
          <Route path="/store/:blockId/trace" element={<TraceSheet />} />
          <Route path="/book" element={<BookList />} />
          <Route path="/book/trends" element={<TrendsRoom />} />
          <Route path="/book/:runId" element={<BookRecord />} />
          <Route path="/lessons" element={<LessonsRoom />} />
          <Route path="/lessons/morning/:morningKey" element={<MorningRoom />} />
          <Route path="/lessons/inside" element={<InsideRoom />} />
          <Route path="/lessons/:lessonKey/class" element={<ClassRoom />} />
          <Route
            path="/kitchen"
            element={
              <KitchenRoom
                people={
                  <>
                    <People me={me} />
                    <Bin />
                  </>
                }
              />
            }
          />
          <Route path="/drawings" element={<Drawings />} />
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
      deduplicateCssVariables={false}
    >
      <QueryClientProvider client={queries}>
        {/* Where one is, is seen at once: a screen that follows later lets hands type into the last one. */}
        <BrowserRouter useTransitions={false}>
          <Kept>
            <Suspense fallback={<Waiting what="the bakehouse" />}>
              <Rooms />
            </Suspense>
          </Kept>
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
}
