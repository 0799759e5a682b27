export { Bin } from "./Bin";
export { FirstStart } from "./FirstStart";
export { OwnPassword, People } from "./People";
export { SignInAgain } from "./SignInAgain";
