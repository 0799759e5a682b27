/** The rooms, each fetched when somebody goes there, or soon after, while nothing else is to do. */
import { lazy, useEffect } from "react";
import { lazily } from "@/wire/lazily";

const SOON_MS = 4_000;

const bench = () => import("@/rooms/bench");
const book = () => import("@/rooms/book");
const day = () => import("@/rooms/day");
const kitchen = () => import("@/rooms/kitchen");
const lessons = () => import("@/rooms/lessons");
const people = () => import("@/rooms/people");
const plans = () => import("@/rooms/plans");
const planList = () => import("@/rooms/plans/PlanList");
const store = () => import("@/rooms/store");
const today = () => import("@/rooms/today");

export const BenchList = lazily(async () => (await bench()).BenchList);
export const BenchRun = lazily(async () => (await bench()).BenchRun);
export const BookList = lazily(async () => (await book()).BookList);
export const BookRecord = lazily(async () => (await book()).BookRecord);
export const TrendsRoom = lazily(async () => (await book()).TrendsRoom);
export const DayPaper = lazily(async () => (await day()).DayPaper);
export const OrderList = lazily(async () => (await day()).OrderList);
export const OrderRoom = lazily(async () => (await day()).OrderRoom);
export const OrderSheets = lazily(async () => (await day()).OrderSheets);
export const CompareRoom = lazily(
  async () => (await import("@/rooms/plans/compare/CompareRoom")).CompareRoom,
);
export const PlanList = lazily(async () => (await planList()).PlanList);
export const PlanRoom = lazily(async () => (await plans()).PlanRoom);
export const PlanPaper = lazily(async () => (await import("@/rooms/plans/PlanPaper")).PlanPaper);
export const PlanSheets = lazily(async () => (await import("@/rooms/plans/PlanSheets")).PlanSheets);
export const LessonsRoom = lazily(async () => (await lessons()).LessonsRoom);
export const LessonRoom = lazily(async () => (await lessons()).LessonRoom);
export const ClassRoom = lazily(async () => (await lessons()).ClassRoom);
export const InsideRoom = lazily(async () => (await lessons()).InsideRoom);
export const MorningRoom = lazily(async () => (await lessons()).MorningRoom);
export const StoreRoom = lazily(async () => (await store()).StoreRoom);
export const StockRoom = lazily(async () => (await store()).StockRoom);
export const TraceSheet = lazily(async () => (await store()).TraceSheet);
export const TodayRoom = lazily(async () => (await today()).TodayRoom);
export const KitchenRoom = lazily(async () => (await kitchen()).KitchenRoom);
export const People = lazily(async () => (await people()).People);
export const SignIn = lazily(async () => (await import("@/rooms/people/SignIn")).SignIn);
export const SignInAgain = lazily(async () => (await people()).SignInAgain);
export const FirstStart = lazily(async () => (await people()).FirstStart);
export const Bin = lazily(async () => (await people()).Bin);
// For builders: nobody else fetches it.
export const Drawings = lazy(() => import("@/rooms/drawings/Drawings"));

/** Fetches the other rooms, one after the other, so that going there waits for nothing. */
export function useNear(): void {
  useEffect(() => {
    const soon = setTimeout(async () => {
      for (const room of [
        planList,
        plans,
        bench,
        today,
        day,
        store,
        book,
        kitchen,
        people,
        lessons,
      ]) {
        await room().catch(() => undefined);
      }
    }, SOON_MS);
    return () => clearTimeout(soon);
  }, []);
}
