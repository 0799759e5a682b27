export { StoreRoom } from "./StoreRoom";
export { TraceSheet } from "./TraceSheet";
