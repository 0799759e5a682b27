export { BookList } from "./BookList";
export { BookRecord } from "./BookRecord";
export { TrendsRoom } from "./TrendsRoom";
