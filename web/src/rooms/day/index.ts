export { DayPaper } from "./DayPaper";
export { OrderList } from "./OrderList";
export { OrderRoom } from "./OrderRoom";
export { OrderSheets } from "./OrderSheets";
