export { StockRoom } from "./StockRoom";
export { StoreRoom } from "./StoreRoom";
export { TraceSheet } from "./TraceSheet";
