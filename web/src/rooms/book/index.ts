export { BookList } from "./BookList";
export { BookRecord } from "./BookRecord";
