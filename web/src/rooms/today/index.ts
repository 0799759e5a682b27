export { TodayRoom } from "./TodayRoom";
