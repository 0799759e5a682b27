/** That somebody signed out here: told to the other pages of this tablet, and to the house when it answers. */
const LEAVING = "eight-turn.leaving";
/** Changed when somebody signs out, so that the browser's other pages hear of it. */
export const LEFT_HERE = "eight-turn.left";

export const leavingIsToBeTold = (): boolean => localStorage.getItem(LEAVING) !== null;
export const leavingIsTold = (): void => localStorage.removeItem(LEAVING);
export const tellLater = (): void => localStorage.setItem(LEAVING, "1");
export const tellOtherPages = (): void => localStorage.setItem(LEFT_HERE, String(Date.now()));
