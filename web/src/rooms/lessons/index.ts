export { ClassRoom } from "./ClassRoom";
export { InsideRoom } from "./InsideRoom";
export { LessonRoom } from "./LessonRoom";
export { LessonsRoom } from "./LessonsRoom";
export { MorningRoom } from "./MorningRoom";
